import { expect, test, type Page } from './test.ts'
import type { SiteActionsView } from '../core/api.ts'
import type { DeviceView } from '../core/devices/views.ts'
import type { ProvingView } from '../core/proving/views.ts'
import { Unmarked } from './unmarked.ts'

/** Names that stand on screens and come from no answer of the server. */
const NAMES = ['isla', 'ines', 'ruth', 'IB', 'slipway', 'Wardoptic']
/** What the component library says by itself, in the language that it is given. */
const LIBRARY = [
  'Show',
  'Hide',
  'down',
  'up',
  'eye-invisible',
  'close-circle',
  'search',
  'check'
].concat('Increase Value', 'Decrease Value', 'Close', 'close', 'No data', 'Switch')
/** The browser of a session, as far as it is shown. */
const BROWSER = /^Playwright\//

const read = async <T>(page: Page, path: string): Promise<T> =>
  (await (await page.request.get(path)).json()) as T

/** Goes to an address in the pseudo-language, waits for what stands there, and looks at its words. */
async function visit(page: Page, unmarked: Unmarked, path: string, there: string): Promise<void> {
  await page.goto(`${path}${path.includes('?') ? '&' : '?'}language=pseudo`)
  await page.locator(there).first().waitFor()
  await unmarked.look(path)
}

const found = (unmarked: Unmarked): string[] =>
  [...unmarked.found]
    .filter(([text]) => !LIBRARY.includes(text) && !BROWSER.test(text))
    .map(([text, where]) => `${where}: ${text}`)

test('every text in every place comes from core/messages', async ({ page }) => {
  test.setTimeout(300_000)
  const unmarked = new Unmarked(page, NAMES)
  const { detections, schedules, endpoints } = await read<SiteActionsView>(
    page,
    '/api/sites/skerrow/actions'
  )
  const devices = await read<DeviceView[]>(page, '/api/sites/skerrow/devices')
  const { checks } = await read<ProvingView>(page, '/api/sites/skerrow/proving')

  await visit(page, unmarked, '/site', '.camera-card')
  await visit(page, unmarked, '/devices', '.device')
  for (const { id } of devices)
    await visit(page, unmarked, `/devices?device=${id}`, '.device-facts')
  await visit(page, unmarked, `/devices?device=${devices[0]!.id}`, '.device-facts')
  await page.locator('.devices-place article header button').nth(1).click()
  await page.locator('.abilities').waitFor()
  await unmarked.look('what works with a device')
  await visit(page, unmarked, '/devices', '.device')
  await page.locator('.devices-place header button').first().click()
  await page.locator('.device-form, .ant-modal').first().waitFor()
  await unmarked.look('a device is added')
  for (const { schedule } of schedules) {
    await visit(page, unmarked, `/arming/${schedule.id}`, '.is-it-armed')
    await page.getByRole('button', { name: /Sat/ }).first().click()
    await unmarked.look(`/arming/${schedule.id}, a day`)
    await page.locator('.year-cell').nth(40).click()
    await unmarked.look(`/arming/${schedule.id}, a date`)
  }
  await visit(page, unmarked, '/actions', '.matrix')
  await visit(page, unmarked, '/actions/alarms', 'main')
  await visit(page, unmarked, '/actions/mail', '.ant-select')
  for (const { endpoint } of endpoints)
    await visit(page, unmarked, `/actions?endpoint=${endpoint.id}`, '.action-panel')
  await visit(page, unmarked, '/watch', '.watch-side')
  await visit(page, unmarked, '/watch/search', '.search-part')
  await visit(page, unmarked, '/mailbox', '.mailbox-place')
  await visit(page, unmarked, '/handover', 'main')
  await visit(page, unmarked, '/nowhere', 'main')
  for (const { camera, detection } of detections)
    await visit(
      page,
      unmarked,
      `/prove?camera=${camera}&detection=${detection.id}`,
      '.prove-middle'
    )
  // A check of each kind.
  for (const { camera, check } of [...new Map(checks.map((c) => [c.check.about, c])).values()])
    await visit(
      page,
      unmarked,
      `/prove?camera=${camera}&detection=${check.detection}&check=${check.id}`,
      '.prove-middle'
    )
  await visit(page, unmarked, '/prove/walk', '.walk-order')
  expect(found(unmarked)).toEqual([])
})

test('on the Bench, with each condition open, and in its dialogs', async ({ page }) => {
  test.setTimeout(300_000)
  const unmarked = new Unmarked(page, NAMES)
  const { detections } = await read<SiteActionsView>(page, '/api/sites/skerrow/actions')
  for (const { camera, detection } of detections) {
    const path = `/bench/${camera}?detection=${detection.id}`
    await visit(page, unmarked, path, '.chip')
    const chips = page.locator('.chip')
    for (let i = 0; i < (await chips.count()); i++) {
      await chips.nth(i).click()
      await page.locator('.chip-editor').first().waitFor()
      await unmarked.look(`${path}, condition ${i + 1}`)
      await page.keyboard.press('Escape')
      await expect(page.locator('.chip-editor')).toHaveCount(0)
    }
  }
  await visit(page, unmarked, '/bench/slipway', '.target-lane')
  for (const [key, what] of [
    ['?', '.ant-modal .keys'],
    ['Escape', 'main']
  ] as const) {
    await page.keyboard.press(key)
    await page.locator(what).first().waitFor()
    await unmarked.look(`Bench, key ${key}`)
  }
  // What the bar opens, one after the other: lists, dialogs, drawers.
  const buttons = page.locator('.bench-bar button:enabled')
  for (let i = 0; i < (await buttons.count()); i++) {
    await visit(page, unmarked, '/bench/slipway', '.target-lane')
    await buttons.nth(i).click()
    await page.waitForTimeout(400) // whatever opens has opened
    await unmarked.look(`Bench, button ${i + 1} of the bar`)
  }
  // And of the bar of the clip, but the one that opens the system's own dialog.
  const ofClip = page.locator('.clip-bar > button:enabled:not(:has(.anticon-upload))')
  const many = await ofClip.count()
  expect(many).toBeGreaterThan(1)
  for (let i = 0; i < many; i++) {
    await visit(page, unmarked, '/bench/slipway', '.target-lane')
    await ofClip.nth(i).click()
    await page.waitForTimeout(800) // whatever opens has opened
    await unmarked.look(`Bench, button ${i + 1} of the clip`)
  }
  expect(found(unmarked)).toEqual([])
})

test('in accounts, sessions, the audit log, storage and the sites', async ({ page }) => {
  const unmarked = new Unmarked(page, NAMES)
  await visit(page, unmarked, '/?sites', '.sites-list')
  await page.locator('.sites-head .ant-btn-primary').click()
  await page.locator('.site-add').waitFor()
  await unmarked.look('a site is added')
  await visit(page, unmarked, '/site', '.camera-card')
  await page.locator('.site-switch').click()
  await page.locator('.site-switcher-all').waitFor()
  await unmarked.look('the other sites')
  await visit(page, unmarked, '/site', '.camera-card')
  await page.locator('.user').click()
  const items = page.locator('.ant-dropdown-menu-item:not(.ant-dropdown-menu-item-disabled)')
  await items.first().waitFor()
  await unmarked.look('menu of the account')
  const many = await items.count()
  expect(many).toBeGreaterThan(4)
  // The last one signs out.
  for (let i = 0; i < many - 1; i++) {
    await visit(page, unmarked, '/site', '.camera-card')
    await page.locator('.user').click()
    await items.nth(i).click()
    await page.locator('.ant-modal').waitFor()
    await page.waitForTimeout(400) // lists that it reads
    await unmarked.look(`menu of the account, ${i + 1}`)
  }
  await page.context().clearCookies()
  await visit(page, unmarked, '/site', 'form')
  expect(found(unmarked)).toEqual([])
})

test('finds a text from elsewhere', async ({ page }) => {
  const unmarked = new Unmarked(page, NAMES)
  await visit(page, unmarked, '/site', '.camera-card')
  await page.evaluate(() => {
    document.querySelector('h2')!.append(' in plain words')
    document.querySelector('button')!.setAttribute('title', 'Without marks')
  })
  await unmarked.look('changed')
  expect(found(unmarked).sort()).toEqual(['changed: Without marks', 'changed: in plain words'])
})
