import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'

/**
 * Takes the pictures of docs/screenshots from a running application with fresh demo data:
 * npm start -- --data /tmp/fresh, then npm run screenshots -- http://127.0.0.1:4600
 */
const address = process.argv[2] ?? 'http://127.0.0.1:4600'
const folder = fileURLToPath(new URL('../docs/screenshots/', import.meta.url))
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync'
  ]
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(address)
await page.getByLabel('User name').fill('isla')
await page.getByLabel('Password').fill('ferry-at-seven')
await page.keyboard.press('Enter')
await page.locator('.camera-card').first().waitFor()
const take = async (name: string): Promise<void> => {
  await page.waitForTimeout(700) // lets fonts, video frames and short animations settle
  await page.screenshot({ path: `${folder}${name}.png` })
}

// The past of the demo site is being made.
for (;;) {
  const answer = await page.request.get(`${address}/api/sites/skerrow/demo`)
  if (((await answer.json()) as { filling: unknown }).filling === null) break
  await page.waitForTimeout(1000)
}
await page.goto(`${address}/site`)
await page.locator('.site-findings li').first().waitFor()
await page.waitForFunction(
  () => [...document.images].length > 1 && [...document.images].every((i) => i.complete)
)
await take('site')

await page.goto(`${address}/bench/fuel-pontoon?back=true&detection=pontoon-after-hours`)
await page.getByRole('button', { name: 'Last 24 hours' }).click()
await page.getByRole('button', { name: 'Recommend settings' }).click()
await page.locator('.flag').first().waitFor({ timeout: 120_000 })
await page.getByText('Looking for settings').waitFor({ state: 'hidden', timeout: 60_000 })
await take('bench-look-back')

await page.goto(`${address}/bench/slipway`)
await page.locator('.flag').last().waitFor({ timeout: 60_000 })
await page.locator('.flag').last().click()
await page.locator('.ladder').waitFor()
await take('bench-trigger')

await page.getByRole('button', { name: 'Suggest a change' }).click()
await page
  .locator('.changes li')
  .nth(1)
  .getByText(/changes on|Also|Loses/)
  .waitFor()
await page.locator('.changes li').nth(1).scrollIntoViewIfNeeded()
await take('bench-change')
await page.getByRole('button', { name: 'Close', exact: true }).click()

await page.getByRole('button', { name: 'Replay as live…' }).click()
await page.getByText('As fast as possible').click()
await page.getByText(': delivered').nth(1).waitFor()

await page.goto(`${address}/bench/slipway`)
await page.locator('.flag').first().waitFor()
const box = (await page.locator('.stage canvas').first().boundingBox())!
const at = (x: number, y: number): [number, number] => [
  box.x + x * box.width,
  box.y + y * box.height
]
await page.locator('.rail-item button').first().click()

await page.goto(`${address}/bench/quay-path`)
await page.locator('.flag').first().waitFor({ timeout: 120_000 })
await page.getByRole('button', { name: /(^|\s)Calibrate$/ }).click()
await page.getByRole('button', { name: 'Use the people in this clip' }).click()
await page
  .getByRole('complementary', { name: /(^|\s)Calibrate$/ })
  .getByRole('switch')
  .click()
await take('bench-measure')
await page.getByRole('button', { name: /(^|\s)Cancel$/ }).click()
await page.locator('.rail-item button').first().click()
await page.locator('.flag').nth(1).click()
await page.locator('.curve svg path').first().waitFor()
await take('bench-motion')

await page.goto(`${address}/bench/waiting-room`)
await page.locator('.clip-select').click()
await page.locator('.ant-select-item-option', { hasText: 'At the ticket window' }).click()
await page.locator('.flag').first().waitFor({ timeout: 60_000 })
await page.locator('.flag').first().click()
await page.locator('.ladder').waitFor()
await take('bench-face')

await page.goto(`${address}/bench/slipway`)
await page.locator('.flag').first().waitFor()
await page.keyboard.press('z')
for (const [x, y] of [
  [0.4, 0.5],
  [0.65, 0.5],
  [0.75, 0.75],
  [0.3, 0.75]
]) {
  await page.mouse.click(...at(x!, y!))
  await page.waitForTimeout(400)
}
await page.keyboard.press('Enter')
await page
  .getByRole('button', { name: /^Trigger of Zone 1,/ })
  .last()
  .click()
await page.getByRole('button', { name: /^Dwell: / }).click()
await page.locator('.stays-chart').waitFor()
await take('bench-zone')
await page.keyboard.press('Escape')
await page.keyboard.press('Control+z')
await page.getByText('All changes saved').waitFor()

await page.goto(`${address}/devices`)
await page.getByRole('button', { name: /^Slipway camera/ }).click()
await page.getByRole('button', { name: 'Send 1 change' }).click()
await page.getByText('Sent and verified').waitFor()
await page.getByRole('button', { name: /^Quay path camera/ }).click()
await page
  .getByRole('article', { name: 'Quay path camera' })
  .locator('.device-detections li')
  .first()
  .waitFor()
await take('devices')

await page.goto(`${address}/bench/slipway?live=true`)
await page.locator('.heard-live li').first().waitFor({ timeout: 120_000 })
await take('bench-live')

await page.goto(`${address}/arming/nights`)
await page.locator('.armed-span').nth(10).waitFor()
await page.getByRole('button', { name: /^Sat/ }).click()
await page.locator('.year-cell[data-date$="-12-25"]').click()
await page.getByLabel('Name of the exception').fill('Christmas Day')
await page.getByRole('button', { name: 'Armed all day' }).click()
await page.getByRole('button', { name: 'Close' }).click()
await take('arming')

await page.request.post(`${address}/api/sites/skerrow/endpoints/strobe-mast/test`)
await page.goto(`${address}/actions?endpoint=strobe-mast`)
await page.locator('.crossing').first().waitFor()
await take('actions')

const {
  running: { pages }
} = (await (await page.request.get(`${address}/api/sites/skerrow/simulators`)).json()) as {
  running: { pages: string }
}
await page.request.post(`${pages}/station/mood`, { form: { value: 'silent' }, maxRedirects: 0 })
await page.goto(`${address}/actions/alarms`)
for (const [camera, detection] of [
  ['slipway', 'quay-edge'],
  ['waiting-room', 'waiting-room-door']
])
  await page.request.post(`${address}/api/sites/skerrow/triggers`, {
    data: { key: `${detection} ${Date.now()}`, camera, detection }
  })
await page.getByText('the station did not answer within 5 s').first().waitFor()
await page.request.post(`${pages}/station/mood`, { form: { value: 'answers' }, maxRedirects: 0 })
for (const close of await page.locator('.popup-close').all()) await close.click()
await page.waitForTimeout(700)
await take('alarms')

await page.goto(`${address}/prove?camera=quay-path&detection=path-crossing`)
await page.locator('.check-row.failed').first().click({ timeout: 60_000 })
await page.locator('.prove-side .ladder').waitFor()
await take('prove')
await page.goto(`${address}/prove/walk?camera=slipway`)
await page.getByRole('button', { name: /Walk$/ }).click()
await page.locator('.walk-verdict').waitFor({ timeout: 60_000 })
await take('walk')
await page.goto(`${address}/watch`)
await page.locator('.alarm-line', { hasText: 'Quay edge' }).first().click()
await page.locator('.evidence-path').waitFor()
await page.waitForTimeout(3000)
await take('watch')
await page.goto(`${address}/handover`)
const obstacle = page.locator('.obstacles li', { hasText: 'no account yet' })
await obstacle.getByRole('button', { name: 'Accept…' }).click()
await page.getByLabel(/^Reason/).fill('The yard follows in spring, when its roof is done.')
await page.getByRole('button', { name: 'Accept on purpose' }).click()
await page.locator('.change-list li').first().waitFor()
await take('handover')

await page.setViewportSize({ width: 390, height: 844 })
await page.goto(`${address}/watch`)
await page.locator('.alarm-line', { hasText: 'Quay edge' }).first().click()
await page.waitForTimeout(3000)
await take('phone-watch')
await page.goto(`${address}/prove/walk?camera=slipway`)
await page.getByRole('button', { name: /Walk( again)?$/ }).click()
await page.getByRole('button', { name: 'Stop' }).waitFor()
await page.getByRole('button', { name: 'Walk again' }).waitFor({ timeout: 60_000 })
await take('phone-walk')
await browser.close()
