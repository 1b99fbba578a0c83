import { readFileSync, writeFileSync } from 'node:fs'
import { expect, test, type Locator, type Page } from './test.ts'
import ICAL from 'ical.js'
import type { SiteActionsView } from '../core/api.ts'

test.describe.configure({ mode: 'serial' })
const kept = (page: Page) => expect(page.locator('.sync-status')).toHaveText('All changes saved')
const view = async (page: Page): Promise<SiteActionsView> =>
  (await page.request.get('/api/sites/skerrow/actions')).json()
const hours = async (page: Page, id: string) =>
  (await view(page)).schedules.find((s) => s.schedule.id === id)!.schedule
const day = (page: Page, name: string): Locator =>
  page.getByRole('region', { name, exact: true }).locator('.day-column')
const gaps = (page: Page): Locator => page.getByRole('region', { name: 'Schedule gaps' })

/** Drags down a day's column, from an hour to another. */
async function drag(page: Page, column: Locator, from: number, to: number): Promise<void> {
  const box = (await column.boundingBox())!
  const y = (hour: number): number => box.y + (hour / 24) * box.height
  await page.mouse.move(box.x + box.width / 2, y(from))
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, y((from + to) / 2), { steps: 3 })
  await page.mouse.move(box.x + box.width / 2, y(to), { steps: 3 })
  await page.mouse.up()
}

test('shows the gap, copies a day to others, fixes the gap, and undoes it', async ({ page }) => {
  await page.goto('/arming/nights')
  await expect(gaps(page)).toContainText(
    'Floodlight (Lights) is off for 24 h of the 108 h armed a week:'
  )
  await expect(gaps(page).getByRole('listitem')).toHaveText(['Sat and Sun, 06:30 to 18:30'])
  await expect(page.locator('.hour-rail i.silent')).toHaveCount(2)

  await page.getByRole('button', { name: /^Sat/ }).click()
  await page.getByRole('button', { name: 'Copy Saturday to…' }).click()
  await page.getByRole('button', { name: 'Mon to Fri' }).click()
  await page.getByRole('button', { name: 'Copy', exact: true }).click()
  await expect(gaps(page).getByRole('listitem')).toHaveText(['every day, 06:30 to 18:30'])
  await kept(page)
  expect((await hours(page, 'nights')).week.wed).toEqual([['00:00', '24:00']])
  await page.keyboard.press('Control+z')
  await expect(gaps(page).getByRole('listitem')).toHaveText(['Sat and Sun, 06:30 to 18:30'])

  await gaps(page).getByRole('button', { name: 'Use Nights' }).click()
  await expect(gaps(page)).toContainText('Floodlight (Nights) is on all the armed time.')
  await expect(page.locator('.hour-rail i.silent')).toHaveCount(0)
  await kept(page)
  expect(
    (await view(page)).endpoints.find((e) => e.endpoint.id === 'floodlight')!.endpoint.schedule
  ).toBe('nights')
  await page.getByRole('button', { name: /(^|\s)Undo$/ }).click()
  await gaps(page).getByRole('button', { name: 'Mark as intended' }).click()
  await expect(gaps(page)).toContainText('Marked as intended.')
  await kept(page)
})

test('drags spans to half hours, moves them by keyboard, accepts typed ones, refuses wrong ones', async ({
  page
}) => {
  await page.goto('/arming/dark-hours')
  await drag(page, day(page, 'Wednesday'), 9.1, 11.4)
  await kept(page)
  expect((await hours(page, 'dark-hours')).week.wed).toEqual([
    ['00:00', '06:30'],
    ['09:00', '11:30'],
    ['18:30', '24:00']
  ])
  const begin = page.getByRole('slider', { name: 'Start on Wednesday' }).nth(1)
  await begin.focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowDown')
  await expect(begin).toHaveAttribute('aria-valuetext', '09:03')
  await page.keyboard.press('PageUp')
  await expect(begin).toHaveAttribute('aria-valuetext', '08:33')
  await kept(page)

  const typed = page.getByRole('textbox', { name: 'Hours of Wednesday' })
  await typed.fill('7:15 to 25:00')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toHaveText(
    '“25:00” is not a time. Enter it as 18:30, 24:00 or sunset-00:30.'
  )
  await expect(typed).toHaveValue('7:15 to 25:00')
  await typed.fill('7:15 to 8:45, sunset-00:30 to 24:00')
  await page.keyboard.press('Enter')
  await kept(page)
  expect((await hours(page, 'dark-hours')).week.wed).toEqual([
    ['07:15', '08:45'],
    ['sunset-00:30', '24:00']
  ])
  // With Alt hours are taken out, also of the middle of a span.
  await page.keyboard.down('Alt')
  await drag(page, day(page, 'Tuesday'), 2, 4)
  await page.keyboard.up('Alt')
  await kept(page)
  expect((await hours(page, 'dark-hours')).week.tue).toEqual([
    ['00:00', '02:00'],
    ['04:00', '06:30'],
    ['18:30', '24:00']
  ])
  await page.getByRole('button', { name: /^Wed/ }).click()
  await page.getByRole('button', { name: 'Hours of Wednesday, 07:15 to 08:45' }).focus()
  await page.keyboard.press('Delete')
  await kept(page)
  expect((await hours(page, 'dark-hours')).week.wed).toEqual([['sunset-00:30', '24:00']])
})

test('exceptions: a date, a range with Shift, and back to the week', async ({ page }) => {
  await page.goto('/arming/nights')
  const date = (iso: string) => page.locator(`.year-cell[data-date="${iso}"]`)
  const first = await page.locator('.year-cell').nth(40).getAttribute('data-date')
  const last = await page.locator('.year-cell').nth(42).getAttribute('data-date')
  await date(first!).click()
  await page.getByLabel('Name of the exception').fill('Regatta')
  await date(last!).click({ modifiers: ['Shift'] })
  await page.getByLabel('Name of the exception').fill('Regatta')
  await page.getByRole('button', { name: 'Not armed', exact: true }).click()
  await kept(page)
  expect((await hours(page, 'nights')).exceptions).toMatchObject([
    { date: first, name: 'Regatta', spans: [] },
    {},
    { date: last, name: 'Regatta' }
  ])
  await expect(page.locator('.year-cell.none')).toHaveCount(3)
  await date(first!).click()
  await page.getByRole('button', { name: 'Armed all day' }).click()
  await expect(page.locator('.year-cell.other')).toHaveCount(1)
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'As the week', exact: true }).click()
  await kept(page)
  expect((await hours(page, 'nights')).exceptions).toHaveLength(2)
})

test('is it armed: at any time, by schedule and panel', async ({ page }) => {
  await page.goto('/arming/nights')
  const asked = page.getByRole('region', { name: 'Is it armed?' })
  await asked.getByLabel('At this time').fill('2 Dec 2026, 05:10')
  await page.keyboard.press('Enter')
  await expect(asked.getByRole('status')).toContainText('Yes: Nights ends 06:30.')
  await expect(asked).toContainText('Door after hours: Not armed: Alarm panel is not set')
  await asked.getByLabel('At this time').fill('2 Dec 2026, 12:00')
  await page.keyboard.press('Enter')
  await expect(asked.getByRole('status')).toContainText('No: Nights starts 18:30.')
})

test('exports a calendar that a general reader reads, and imports it as a new schedule', async ({
  page
}, info) => {
  await page.goto('/arming/nights')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('link', { name: 'Export calendar' })
      .or(page.getByRole('button', { name: 'Export calendar' }))
      .click()
  ])
  const file = info.outputPath('nights.ics')
  await download.saveAs(file)
  const root = new ICAL.Component(ICAL.parse(readFileSync(file, 'utf8')))
  expect(root.getAllSubcomponents('vevent').length).toBeGreaterThan(1)
  writeFileSync(
    file,
    readFileSync(file, 'utf8').replace('X-WR-CALNAME:Nights', 'X-WR-CALNAME:From elsewhere')
  )
  await page.locator('input[type=file]').setInputFiles(file)
  await expect(page.getByRole('textbox', { name: 'Schedule name' })).toHaveValue('From elsewhere')
  await kept(page)
  const read = (await view(page)).schedules.find(
    (s) => s.schedule.name === 'From elsewhere'
  )!.schedule
  expect(read.week).toEqual((await hours(page, 'nights')).week)
  await page.getByRole('button', { name: 'Delete schedule' }).click()
  await kept(page)
  writeFileSync(file, 'no calendar')
  await page.locator('input[type=file]').setInputFiles(file)
  await expect(page.getByText(/is not iCalendar/)).toBeVisible()
})
