import { readFileSync } from 'node:fs'
import { expect, test, type Page } from './test.ts'
import type { DeviceView } from '../core/devices/views.ts'
import { DeviceLink } from '../server/devices/link/link.ts'
import { asDelivered } from './site.ts'

// Each test continues from the one before: a first account is made once.
test.describe.configure({ mode: 'serial', retries: 0 })
const models = JSON.parse(
  readFileSync(new URL('../demo/devices.json', import.meta.url), 'utf8')
) as { name: string; account?: { username: string; password: string } }[]
const accountOf = (name: string): { username: string; password: string } =>
  models.find((m) => m.name === name)!.account!

/** Somebody else on the site, with another program. */
async function otherHand(page: Page, name: string): Promise<DeviceLink> {
  const devices = (await (
    await page.request.get('/api/sites/skerrow/devices')
  ).json()) as DeviceView[]
  return new DeviceLink(devices.find((d) => d.name === name)!.address, accountOf(name))
}

const sheetOf = async (page: Page, name: string) => {
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click()
  return page.getByRole('article', { name })
}

test('lists issues on the site and fixes them there; undoes a fix', async ({ page }) => {
  await page.goto('/')
  const card = page.getByRole('link', { name: /^Slipway \d+ detection/ })
  await expect(card).toContainText('On device not finished')
  const missing = page.getByRole('region', { name: 'Issues' })
  await expect(missing).toContainText('Workshop yard camera has no account yet')
  await missing.getByRole('button', { name: /^Show \d+ more$/ }).click()
  await expect(missing).toContainText(/Waiting room camera’s clock is 9\d s fast/)
  const finding = missing.getByRole('listitem').filter({ hasText: 'Slipway runs the old settings' })
  await finding.getByRole('button', { name: 'Send' }).click()
  await expect(finding).toHaveCount(0)
  await expect(card).toContainText('On device done')

  const window = missing.getByRole('listitem').filter({ hasText: 'Ticket window can’t run' })
  await window.getByRole('button', { name: 'Switch to Faces' }).click()
  await expect(window).toHaveCount(0)
  await page
    .locator('.ant-message')
    .getByRole('button', { name: /(^|\s)Undo$/ })
    .click()
  await expect(window).toHaveCount(1)
})

test('the Bench shows the live picture and the camera’s own events', async ({ page, baseURL }) => {
  await page.goto('/bench/slipway')
  await page.getByRole('button', { name: 'Live', exact: true }).click()
  await expect(page.getByRole('img', { name: 'Live picture' })).toBeVisible()
  await expect
    .poll(() =>
      page
        .getByRole('img', { name: 'Live picture' })
        .evaluate((img: HTMLImageElement) => img.naturalWidth)
    )
    .toBeGreaterThan(300)
  const anybody = {
    id: 'anybody',
    name: 'Anybody',
    kind: 'intrusion',
    zone: [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1]
    ]
  }
  await page.request.put('/api/sites/skerrow/cameras/slipway/detections/anybody', {
    data: { version: 0, position: 9, detection: anybody }
  })
  const readiness = page.getByRole('region', { name: 'Readiness' })
  await readiness.getByRole('button', { name: /^On device/ }).click()
  await readiness
    .getByRole('listitem')
    .filter({ hasText: 'Slipway runs the old settings' })
    .getByRole('button', { name: 'Send' })
    .click()
  const events = page.getByRole('region', { name: 'Live events' }).getByRole('listitem')
  await expect(events.filter({ hasText: /target inside/ }).first()).toBeVisible({
    timeout: 60_000
  })
  // What was drawn is judged here as well, and both say the same.
  await expect(events.filter({ hasText: 'device and drawing agree' }).first()).toBeVisible({
    timeout: 60_000
  })
  await asDelivered(baseURL, 'slipway')
})

test('shows what was changed on a device, and imports it', async ({ page }) => {
  const other = await otherHand(page, 'Slipway camera')
  const [line] = await other.analysis.rules('analytics')
  await other.analysis.modifyRule('analytics', {
    ...line!,
    simple: { ...line!.simple, Direction: 'Left', Sensitivity: '70' }
  })
  await page.goto('/devices')
  const sheet = await sheetOf(page, 'Slipway camera')
  await sheet.getByRole('button', { name: /(^|\s)Refresh$/ }).click()
  const row = sheet
    .getByRole('listitem')
    .filter({ hasText: 'Quay edge' })
    .filter({ hasText: 'changed on device' })
  await expect(row).toContainText('direction: plan Right, device Left')
  await expect(row).toContainText('sensitivity: plan 50, device 70')
  await row.getByRole('button', { name: 'Import from device' }).click()
  await expect(sheet.getByRole('list', { name: 'Plan and device' })).toContainText(
    'Quay edge matches the plan'
  )
  await page.goto('/bench/slipway?detection=quay-edge')
  await expect(page.getByRole('button', { name: /^Direction and sides: / })).toHaveText(
    'Land → Water'
  )
})

test('tests outputs, switches analysis, and lists what each route carries', async ({ page }) => {
  await page.goto('/devices')
  const slipway = await sheetOf(page, 'Slipway camera')
  await expect(slipway).toContainText('Halden Optics HO-40, firmware 2.4.1')
  await expect(slipway).toContainText(
    'Line crossing (up to 4, sensitivity in 100 steps, schedules on device)'
  )
  const strobe = slipway.getByRole('listitem').filter({ hasText: 'Strobe on the mast' })
  await strobe.getByRole('button', { name: 'Test output (3 s)' }).click()
  await expect(strobe).toContainText('active now')
  await expect(strobe).toContainText(/tested \d+ \w+/)
  await expect(slipway).toContainText('runs Line crossing, Intrusion; Face would not run')
  await slipway.getByText('Faces', { exact: true }).click()
  await expect(slipway).toContainText('runs Face; Line crossing, Intrusion would not run')
  await expect(slipway.getByRole('region', { name: 'Issues' })).toContainText(
    'Quay edge can’t run: Slipway camera is in Faces mode'
  )
  await slipway.getByRole('button', { name: 'Switch to Perimeter' }).click()
  await expect(slipway).toContainText('runs Line crossing, Intrusion; Face would not run')

  await expect(await sheetOf(page, 'Quay path camera')).toContainText(
    'Sensitivity 50: the nearest is 34 (step 2 of 1 to 4)'
  )
  await expect(await sheetOf(page, 'Waiting room camera')).toContainText(/clock wrong: 9\d s fast/)
  const recorder = await sheetOf(page, 'Recorder')
  await expect(recorder.getByRole('region', { name: 'Waiting room' })).toContainText(
    'Ticket window not supported here, sent through Waiting room camera'
  )
  await expect(recorder.getByRole('region', { name: 'Quay path' })).toContainText(
    'Path crossing not supported here, sent through Quay path camera'
  )
})

test('sends the changes of many devices with one command, and reads them back', async ({
  page
}) => {
  await page.goto('/devices')
  await page.getByRole('button', { name: /Send to all \d/ }).click()
  const question = page.getByRole('tooltip')
  await expect(question).toContainText(/Send \d+ changes to \d devices\?/)
  const panel = page.getByRole('status', { name: 'Sending' })
  // The list is read again while it is asked; a click may fall into that.
  await expect(async () => {
    if (await question.isVisible())
      await question.getByRole('button', { name: 'Send' }).click({ timeout: 3000 })
    await expect(panel).toBeVisible({ timeout: 5000 })
  }).toPass({ timeout: 60_000 })
  await expect(panel).toContainText('Sent and verified')
  await expect(panel).toContainText('Path crossing created')
  await expect(panel).toContainText('People moving created')
  await expect(await sheetOf(page, 'Recorder')).toContainText('People moving matches the plan')
})

test('adds a device found on the network or by its address', async ({ page }) => {
  await page.goto('/devices')
  const lanes = await sheetOf(page, 'Vehicle lanes camera')
  await expect(lanes).toContainText('Supportsdo not run here')
  await lanes.getByRole('button', { name: 'Remove device' }).click()
  await page
    .getByRole('tooltip')
    .getByRole('button', { name: /(^|\s)Remove$/ })
    .click()
  await page.getByRole('button', { name: 'Add device' }).click()
  const dialog = page.getByRole('dialog', { name: 'Add devices' })
  await expect(dialog.getByRole('checkbox', { name: /^Slipway camera .* added$/ })).toBeDisabled()
  await dialog.getByRole('checkbox', { name: /^Vehicle lanes camera/ }).check()
  await dialog.getByLabel('User name').fill(accountOf('Vehicle lanes camera').username)
  await dialog.getByLabel('Password').fill(accountOf('Vehicle lanes camera').password)
  await dialog.getByRole('button', { name: 'Add 1 device' }).click()
  await expect(page.getByRole('article', { name: 'Vehicle lanes camera' })).toContainText(
    'Brightmoor BM 10'
  )

  await page.getByRole('button', { name: 'Add device' }).click()
  await dialog.getByRole('button', { name: 'Enter address' }).click()
  const byAddress = page.getByRole('dialog', { name: 'Add a device by address' })
  await byAddress.getByLabel('Name', { exact: true }).fill('Shed')
  await byAddress.getByLabel('Address').fill('192.168.1.20')
  await byAddress.getByRole('button', { name: /(^|\s)Add$/ }).click()
  await expect(byAddress.getByRole('alert')).toContainText(
    'is not an address; enter one such as http://192.168.1.20'
  )
  await byAddress.getByLabel('Address').fill('http://127.0.0.1:9')
  await byAddress.getByRole('button', { name: /(^|\s)Add$/ }).click()
  await expect(page.getByRole('article', { name: 'Shed' })).toContainText('not reachable')
})

test('tells what works with a device, and sets its clock and night picture', async ({ page }) => {
  await page.goto('/devices')
  const sheet = await sheetOf(page, 'Waiting room camera')
  await expect(sheet).toContainText(/9\d s fast/)
  const upkeep = sheet.getByRole('region', { name: 'Clock, picture and network' })
  await upkeep.getByRole('button', { name: 'Set clock' }).click()
  await page.getByRole('button', { name: 'Set to the time of this server' }).click()
  await expect(sheet).toContainText('on time · set by hand · time zone of the site')
  await expect(sheet).not.toContainText('clock wrong')
  await sheet.getByRole('combobox', { name: /^Night picture/ }).click()
  await page.getByTitle('Always in colour').click()
  await expect(sheet).not.toContainText('An infra-red picture has no colour')
  await sheet.getByRole('button', { name: 'What works…' }).click()
  const drawer = page.getByRole('dialog', { name: 'What works with Waiting room camera' })
  await expect(drawer.getByRole('row', { name: /^Live picture/ })).toContainText('works')
  await expect(drawer.getByRole('row', { name: /^Storage/ })).toContainText('not offered')
  const download = page.waitForEvent('download')
  await drawer.getByRole('button', { name: 'Save as text' }).click()
  const text = readFileSync(await (await download).path(), 'utf8')
  expect(text).toContain('Brightmoor BM 90')
  expect(text).toMatch(/^Line crossing\tworks$/m)
  expect(text).not.toMatch(/skerrow-\d/)
})
