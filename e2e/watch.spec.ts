import { serious } from './axe.ts'
import { demoAccount } from './servers.ts'
import { expect, test, type Browser, type Page } from './test.ts'

test.describe.configure({ mode: 'serial' })
/** A window of its own in which somebody of a role signs in as people do. */
async function signedIn(
  browser: Browser,
  baseURL: string | undefined,
  role: string
): Promise<Page> {
  const context = await browser.newContext({
    baseURL,
    storageState: { cookies: [], origins: [] },
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/London'
  })
  const page = await context.newPage()
  const { username, password } = demoAccount(role)
  await page.goto('/watch')
  await page.getByLabel('User name').fill(username)
  await page.getByLabel('Password').fill('not this one')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('alert')).toHaveText('Wrong user name or password.')
  await page.getByLabel('Password').fill(password)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /active alarms|new$/ })).toBeVisible()
  return page
}
/** Another one when the tests are begun again: what they wrote before is found as well. */
const word = `baker${Date.now() % 1_000_000}`
const setOff = (page: Page, key: string) =>
  page.request.post('/api/sites/skerrow/triggers', {
    data: { key, camera: 'waiting-room', detection: 'waiting-room-door' }
  })
const desk = (page: Page) => page.getByRole('region', { name: 'Alarm Door after hours' })

test('an alarm reaches an operator, who acknowledges, assigns and closes it; a viewer only looks', async ({
  page,
  browser,
  baseURL
}) => {
  const operator = await signedIn(browser, baseURL, 'operator')
  // What an operator has to do with, and no more.
  await expect(operator.getByRole('navigation', { name: 'Places' }).getByRole('link')).toHaveText([
    'Watch',
    'Handover'
  ])
  await operator.goto('/bench/slipway')
  await expect(operator.getByText('This role can open Watch only.')).toBeVisible()
  await operator.goto('/watch')
  // Pictures move: what is drawn on the canvas of a camera changes.
  const tile = operator.getByRole('button', { name: /^Slipway/ })
  const seen = () =>
    tile.locator('canvas').evaluate((c: HTMLCanvasElement) => c.toDataURL('image/jpeg', 0.2))
  await expect.poll(async () => (await seen()).length, { timeout: 30_000 }).toBeGreaterThan(3000)
  const before = await seen()
  await expect.poll(async () => (await seen()) !== before).toBe(true)

  expect((await setOff(page, `watch-${Date.now()}`)).status()).toBe(201)
  // Older ones of the same detection may stand below.
  await operator
    .locator('.alarm-line.waiting')
    .filter({ hasText: 'Door after hours' })
    .first()
    .click()
  await expect(
    operator.getByRole('button', { name: /^Waiting room\s+active alarm/ })
  ).toHaveAttribute('aria-pressed', 'true')
  await desk(operator).getByRole('button', { name: 'Acknowledge' }).click()
  await expect(desk(operator).getByRole('alert')).toContainText('Enter a comment')
  await desk(operator).getByLabel('Comment').fill(`The ${word}, with the bread`)
  await desk(operator).getByRole('button', { name: 'Acknowledge' }).click()
  await expect(desk(operator)).toContainText(`Ines O. acknowledged: “The ${word}, with the bread”`)
  await desk(operator).getByRole('button', { name: 'Assign to' }).click()
  await operator.getByRole('menuitem', { name: 'Tormod A.' }).click()
  await expect(desk(operator)).toContainText('Ines O. assigned it to Tormod A.')
  await desk(operator).getByRole('button', { name: 'Close alarm' }).click()
  await expect(desk(operator)).toContainText('Ines O. closed')

  const viewer = await signedIn(browser, baseURL, 'viewer')
  await viewer
    .getByRole('list', { name: 'Alarms' })
    .getByRole('button', { name: /Door after hours.*Ines O\./ })
    .first()
    .click()
  await expect(desk(viewer)).toContainText('Ines O. closed')
  await expect(
    desk(viewer).getByRole('button', { name: /Acknowledge|Close alarm|Assign to/ })
  ).toHaveCount(0)
  await viewer.getByRole('button', { name: 'Ruth M., viewer' }).click()
  await viewer.getByRole('menuitem', { name: 'Sign out' }).click()
  await expect(viewer.getByRole('button', { name: 'Sign in' })).toBeVisible()
  await Promise.all([operator.context().close(), viewer.context().close()])
})

test('finds it by comment, camera and kind; a bar of the chart narrows the time', async ({
  page
}) => {
  await page.request.post('/api/sites/skerrow/triggers', {
    data: {
      key: `search-${Date.now()}`,
      camera: 'slipway',
      detection: 'quay-edge',
      direction: 'leftToRight'
    }
  })
  await page.goto('/watch/search')
  await page.getByLabel('Comment contains').fill(`${word} brea`)
  const results = page.getByRole('region', { name: 'Search' }).getByRole('listitem')
  // At night the door of the demo's own scene triggers as well, and may have joined the alarm.
  const others = results.filter({ hasNotText: 'Door after hours' })
  await expect(others).toHaveCount(0)
  await expect(results.first()).toContainText(/Door after hours.*Waiting room/s)
  await expect(results.first().locator('img')).toHaveJSProperty('complete', true)
  await expect(page).toHaveURL(/words=baker/)
  await page.reload()
  await expect(results.first()).toBeVisible()
  await expect(others).toHaveCount(0)
  await results.first().getByRole('button').click()
  await expect(desk(page)).toContainText(`The ${word}, with the bread`)
  await page.getByLabel('Comment contains').fill('')
  await expect(others.first()).toBeVisible()
  await page.getByRole('combobox', { name: 'Kind' }).click()
  await page.getByTitle('Contact input').click()
  await expect(page).toHaveURL(/kind=contact/)
  await expect(results.first()).toContainText('Door after hours')
  await page.locator('.recharts-bar-rectangle').last().click()
  await expect(page).toHaveURL(/from=\d+&to=\d+/)
})

test('the queue keeps its filters, says what they hide, and folds alike alarms', async ({
  page
}) => {
  // Two alarms of one detection: closed ones are joined by no trigger.
  for (const n of [1, 2]) {
    const sent = await setOff(page, `queue-${n}-${Date.now()}`)
    const { alarm } = (await sent.json()) as { alarm: number }
    const path = `/api/sites/skerrow/alarms/${alarm}`
    await page.request.post(`${path}/acknowledge`, {
      data: { comment: 'Looked.', confirmed: true }
    })
    await page.request.post(`${path}/close`, { data: { words: '' } })
  }
  await page.goto('/watch')
  const queue = page.getByRole('list', { name: 'Alarms' })
  await expect(queue.getByRole('button', { name: /^\d+ earlier, / }).first()).toBeVisible()
  const folded = await queue.getByRole('button', { name: /Door after hours/ }).count()
  await queue
    .getByRole('button', { name: /^\d+ earlier, / })
    .first()
    .click()
  await expect
    .poll(() => queue.getByRole('button', { name: /Door after hours/ }).count())
    .toBeGreaterThan(folded)
  await page.getByRole('button', { name: 'Filters' }).click()
  await page.getByRole('checkbox', { name: 'Without closed ones' }).check()
  await expect(page.getByText(/\d+ alarms? hidden/)).toBeVisible()
  await page.reload()
  await expect(page.getByText(/\d+ alarms? hidden/)).toBeVisible()
  await page.getByRole('button', { name: 'Show all' }).click()
  await expect(page.getByText(/\d+ alarms? hidden/)).toHaveCount(0)
  expect(await serious(page)).toEqual([])
})

test('a shift note is written, and read by the next shift', async ({ page, browser, baseURL }) => {
  await page.goto('/watch')
  const shift = page.getByRole('region', { name: 'Shift note' })
  await expect(shift).toContainText(/Signed in: .*Isla Brae since \d\d:\d\d/)
  await shift.getByRole('button', { name: 'Hand over shift' }).click()
  const dialog = page.getByRole('dialog', { name: 'Hand over shift' })
  await expect(dialog).toContainText(/Since \d\d:\d\d: \d+ alarms?, \d+ closed/)
  await dialog.getByLabel('What the next shift must know').fill('Contractor until 02:00.')
  expect(await serious(page)).toEqual([])
  await dialog.getByRole('button', { name: 'Save note' }).click()
  await expect(shift).toContainText('Contractor until 02:00.')
  const operator = await signedIn(browser, baseURL, 'operator')
  const theirs = operator.getByRole('region', { name: 'Shift note' })
  await expect(theirs).toContainText('Contractor until 02:00.')
  await theirs.getByRole('button', { name: 'Mark as read' }).click()
  await expect(theirs.getByRole('button', { name: 'Mark as read' })).toHaveCount(0)
  await theirs.getByText('Last shift note').click()
  await expect(theirs).toContainText(/Ines O\. read it at \d\d:\d\d/)
  await operator.context().close()
})

test('live resumes after the connection was cut', async ({ page, context }) => {
  await page.goto('/watch')
  // Its trees and reeds are never still.
  const tile = page.getByRole('button', { name: /^Quay path/ })
  const seen = () => tile.locator('canvas').evaluate((c: HTMLCanvasElement) => c.toDataURL())
  await expect.poll(async () => (await seen()).length, { timeout: 30_000 }).toBeGreaterThan(3000)
  await context.setOffline(true)
  // What is open already is cut by closing it: as a network that goes away does after a while.
  await page.evaluate(() => window.stop())
  await expect(tile).toContainText('Not connected. Retrying…')
  await context.setOffline(false)
  await expect(tile).not.toContainText('Not connected', { timeout: 20_000 })
  const before = await seen()
  await expect.poll(async () => (await seen()) !== before).toBe(true)
})
