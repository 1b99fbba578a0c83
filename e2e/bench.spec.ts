import { expect, test, type Page } from './test.ts'
import { chip, drag, draw, flags, kept, openBench } from './onBench.ts'

test('leads from the demo site to the Bench with the demo line’s triggers', async ({ page }) => {
  await page.goto('/')
  await expect(page).toHaveURL(/\/site$/)
  await page.getByRole('link', { name: /^Slipway \d+ detection/ }).click()
  await expect(page).toHaveURL(/\/bench\/slipway/)
  await expect(flags(page, 'Quay edge')).toHaveCount(2, { timeout: 60_000 })
})

test('every place in the top bar has its own address', async ({ page }) => {
  await openBench(page)
  for (const place of [
    'Site',
    'Devices',
    'Bench',
    'Arming',
    'Actions',
    'Prove',
    'Watch',
    'Handover'
  ]) {
    await page.getByRole('navigation').getByRole('link', { name: place, exact: true }).click()
    await expect(page).toHaveURL(new RegExp(`/${place.toLowerCase()}`))
  }
  await page.goBack()
  await expect(page).toHaveURL(/\/watch$/)
})

test('Ctrl+K finds a detection of another camera, and opens it', async ({ page }) => {
  await openBench(page)
  await page.keyboard.press('Control+k')
  const field = page.getByRole('combobox', { name: 'Search the site' })
  await field.fill('path crossing')
  await expect(page.getByRole('option').first()).toContainText('Path crossing')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/bench\/quay-path\?detection=path-crossing$/)
  await expect(page.getByRole('dialog')).toHaveCount(0)
})

test('P gives the picture the width of the window, and gives it back', async ({ page }) => {
  await openBench(page)
  const width = async () => (await page.locator('.stage').boundingBox())!.width
  const before = await width()
  await page.keyboard.press('p')
  await expect.poll(width).toBeGreaterThan(before + 150)
  await expect(page.getByRole('complementary', { name: 'Detections' })).toBeHidden()
  await page.getByRole('button', { name: 'Picture fills the window (P)' }).click()
  await expect.poll(width).toBe(before)
})

test('keeps a drawn line after a reload; a selected trigger shows its conditions', async ({
  page
}) => {
  await openBench(page)
  await draw(page, 'l', [0.06, 0.62], [0.5, 0.6], [0.7, 0.6])
  await expect(page.getByRole('heading', { name: 'B · Line crossing' })).toBeVisible()
  // As at the quay's edge: who goes down the ramp and who comes up it, in both directions.
  await expect(flags(page, 'Line 1').first()).toBeVisible()
  const count = await flags(page, 'Line 1').count()
  expect(count).toBeGreaterThanOrEqual(2)
  await kept(page)

  await flags(page, 'Line 1').first().click()
  const ladder = page.getByRole('region', { name: 'Conditions' })
  await expect(ladder.getByRole('heading')).toHaveText(/^Why person \d, at \d+\.\d s$/)
  await expect(ladder.getByRole('listitem')).toHaveCount(6)
  await expect(ladder.getByLabel('not met')).toHaveCount(0)
  await expect(ladder).toContainText(/Triggered at \d+\.\d s: all conditions met/)

  // The playhead stands at the flag's pole.
  const pole = (await flags(page, 'Line 1').first().boundingBox())!.x + 1
  expect(Math.abs((await page.locator('.playhead-track i').boundingBox())!.x - pole)).toBeLessThan(
    2
  )

  await page.reload()
  await expect(flags(page, 'Line 1')).toHaveCount(count)
  await expect(ladder.getByRole('heading')).toHaveText(/^Why person \d/)
})

test('dragging a vertex moves the triggers at once; undo and redo', async ({ page }) => {
  await openBench(page)
  await page.getByRole('button', { name: /A person crosses Line 1/ }).click()
  const before = await flags(page, 'Line 1').count()
  // The whole line into the sky, vertex by vertex: nobody is there.
  for (const [x, y] of [
    [0.06, 0.62],
    [0.5, 0.6],
    [0.7, 0.6]
  ])
    await drag(page, [x!, y!], [x!, 0.3], [x!, 0.05])
  await expect(flags(page, 'Line 1')).toHaveCount(0)
  await kept(page)
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z')
  await expect(flags(page, 'Line 1')).toHaveCount(before)
  await page.keyboard.press('Control+Shift+Z')
  await page.keyboard.press('Control+z')
  await expect(flags(page, 'Line 1')).toHaveCount(before)
  await kept(page)
})

test('edits the parts of the sentence in place', async ({ page }) => {
  await openBench(page)
  await page.getByRole('button', { name: /A person crosses Line 1/ }).click()

  await chip(page, 'Name').click()
  await page.getByLabel('Name', { exact: true }).fill('x'.repeat(10_000))
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toHaveText(
    'Name is 10000 characters long; at most 80 are allowed.'
  )
  await page.getByLabel('Name', { exact: true }).fill('Ramp foot')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(chip(page, 'Name')).toHaveText('Ramp foot')

  await chip(page, 'Direction and sides').click()
  await page.getByLabel('Left side').fill('Sea')
  await page.getByLabel('Right side').fill('Shore')
  await page.keyboard.press('Enter')
  await page.getByRole('radio', { name: 'Shore → Sea' }).click()
  await page.keyboard.press('Escape')
  await expect(chip(page, 'Direction and sides')).toHaveText('Shore → Sea')
  // One of the two walks that way.
  const oneWay = 1
  await expect(flags(page, 'Ramp foot')).toHaveCount(oneWay)

  await chip(page, 'Classes').click()
  await page.getByRole('checkbox', { name: 'person' }).uncheck()
  await page.getByRole('checkbox', { name: 'vehicle' }).check()
  await page.keyboard.press('Escape')
  await expect(flags(page, 'Ramp foot')).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(flags(page, 'Ramp foot')).toHaveCount(oneWay)

  await chip(page, 'Overlap').click()
  await page.getByRole('spinbutton', { name: 'Sensitivity' }).fill('90')
  await page.keyboard.press('Escape')
  await expect(chip(page, 'Overlap')).toHaveText('a tenth of the body')
  await kept(page)
})

test('arming schedule: outside it nothing triggers, and Why says so', async ({ page }) => {
  await openBench(page)
  await page.getByRole('button', { name: /A person crosses Quay edge/ }).click()
  await chip(page, 'Arming schedule').click()
  await page.locator('.hours .ant-select').click()
  await page.getByTitle('Nights').click()
  await expect(flags(page, 'Quay edge')).toHaveCount(0)
  await page.getByRole('button', { name: 'Edit week' }).click()
  const tuesday = page.getByLabel('Hours of Tuesday')
  await tuesday.fill('18:30 to 06:30')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText(
    'Tuesday runs from 18:30 to 06:30; its start must come before its end'
  )
  // The clip starts on Tuesday at 08:12:00 at the site; the two come up at 29 s and 39 s.
  await tuesday.fill('06:00 to 09:00')
  await page.keyboard.press('Enter')
  await expect(flags(page, 'Quay edge')).toHaveCount(2)
  await page.getByRole('button', { name: 'Close' }).last().click()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await page.getByRole('button', { name: /^person 5, [\d.]+ to/ }).click()
  await expect(page.getByRole('region', { name: 'Conditions' })).toContainText(
    'Arming schedule not met: Tue 08:12:39'
  )
  await page.keyboard.press('Control+z')
  await expect(flags(page, 'Quay edge')).toHaveCount(2)
  await kept(page)
})

test('by keyboard alone: draw, move a vertex, delete, undo', async ({ page }) => {
  await openBench(page)
  const rail = page.getByRole('list', { name: 'Detections' })
  const drawn = await rail.getByRole('listitem').count()
  await page.keyboard.press('l')
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowLeft')
  await page.keyboard.press(' ')
  await page.keyboard.press('Enter') // one vertex is no line
  await expect(page.getByText('Click where the line goes.')).toBeVisible()
  for (let i = 0; i < 8; i++) await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press(' ')
  await page.keyboard.press('Enter')
  await expect(rail.getByRole('listitem')).toHaveCount(drawn + 1)
  await expect(page.getByRole('heading', { name: /^[A-Z] · Line crossing$/ })).toBeVisible()
  await page.keyboard.press('Tab')
  await page.keyboard.press('Shift+ArrowDown')
  await kept(page)
  const id = new URL(page.url()).searchParams.get('detection')
  const plan = await (await page.request.get('/api/sites/skerrow/cameras/slipway/plan')).json()
  expect(plan.cameras[0].detections.find((d: { id: string }) => d.id === id).line).toEqual([
    [0.1, 0.52],
    [0.9, 0.5]
  ])
  await page.keyboard.press('Escape')
  await page.keyboard.press('Delete')
  await expect(rail.getByRole('listitem')).toHaveCount(drawn)
  await page.keyboard.press('Control+z')
  await expect(rail.getByRole('listitem')).toHaveCount(drawn + 1)
  await page.keyboard.press('Control+Shift+Z')
  await expect(rail.getByRole('listitem')).toHaveCount(drawn)
  await kept(page)
})

test('play and step keep picture and moment together', async ({ page }) => {
  await openBench(page)
  const moment = page.getByLabel('Current moment')
  await page.keyboard.press('.')
  await page.keyboard.press('.')
  await expect(moment).toHaveText('00:00.2')
  await page.keyboard.press(',')
  await expect(moment).toHaveText('00:00.1')
  await page.keyboard.press(' ')
  await expect(moment).toHaveText(/00:0[1-9]/)
  await page.keyboard.press(' ')
  const stopped = await moment.textContent()
  await page.waitForTimeout(400)
  await expect(moment).toHaveText(stopped!)
  const shown = await page.locator('video').evaluate((v: HTMLVideoElement) => v.currentTime)
  const [, minutes, seconds] = /(\d+):([\d.]+)/.exec(stopped!)!
  expect(Math.abs(shown - (60 * +minutes! + +seconds!))).toBeLessThan(0.25)
})

test('warns a second window that saves over a newer version, and loses nothing', async ({
  page,
  context
}) => {
  await openBench(page)
  const other = await context.newPage()
  await openBench(other)
  const rename = async (window: Page, name: string) => {
    await window.locator('.rail-item button').first().click()
    await chip(window, 'Name').click()
    await window.getByLabel('Name', { exact: true }).fill(name)
    await window.keyboard.press('Enter')
    await window.keyboard.press('Escape')
  }
  await rename(page, 'First window')
  await kept(page)
  await rename(other, 'Second window')
  const note = other.getByText(/was changed in another window/)
  await expect(note).toBeVisible()
  await expect(other.getByRole('status')).toHaveText('Unsaved changes')
  await expect(chip(other, 'Name')).toHaveText('Second window')
  await other.getByRole('button', { name: 'Use theirs' }).click()
  await expect(note).toBeHidden()
  await expect(chip(other, 'Name')).toHaveText('First window')
  // What was mine is one undo away, and is kept over theirs then.
  await other.keyboard.press('Control+z')
  await expect(chip(other, 'Name')).toHaveText('Second window')
  await kept(other)

  await rename(page, 'Third')
  await expect(page.getByText(/was changed in another window/)).toBeVisible()
  await page.getByRole('button', { name: 'Save mine' }).click()
  await kept(page)
  await other.close()
  await page.reload()
  await expect(flags(page, 'Third')).toHaveCount(2)
})
