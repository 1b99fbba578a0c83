import { mkdtempSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { at, flags, kept } from './onBench.ts'
import { RunningSite, runFolder } from './servers.ts'

// A newcomer's first start, with nothing but the code that it prints.
test.use({ storageState: { cookies: [], origins: [] } })
test.describe.configure({ mode: 'serial' })

let site: RunningSite
let data: string
test.beforeAll(async () => {
  data = mkdtempSync(join(runFolder(), 'first-'))
  site = await RunningSite.start(data, ['--no-demo'])
})
test.afterAll(async () => {
  await site.stop()
  rmSync(data, { recursive: true, force: true })
})

/** How often somebody has clicked on any page. */
async function countClicks(page: Page): Promise<() => Promise<number>> {
  await page.addInitScript(() => {
    window.addEventListener(
      'click',
      // A label clicks its field as well.
      (e) => e.isTrusted && (sessionStorage.clicks = Number(sessionStorage.clicks ?? 0) + 1),
      true
    )
  })
  return () => page.evaluate(() => Number(sessionStorage.clicks ?? 0))
}

test('leads from nothing to a live picture and a proven detection', async ({ page }) => {
  test.setTimeout(400_000)
  const clicks = await countClicks(page)
  const code = /^ {2}([A-Z0-9-]{20,})$/.exec(site.said.at(-1)!)![1]!
  const began = Date.now()

  await page.goto(site.address)
  await page.getByLabel('Code').fill(code)
  await page.getByLabel('Your name').fill('Tess Arden')
  await page.getByLabel('User name').fill('tess')
  await page.getByLabel(/^Password/).fill('a-quiet-morning-by-the-store')
  await page.getByRole('button', { name: 'Create account' }).click()

  await page.getByLabel('Site name').fill('Harbour Store')
  await page.getByRole('combobox', { name: 'Nearest place' }).click()
  await page.keyboard.type('Dublin')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Set up site' }).click()
  await expect(page.getByText('0 cameras · Europe/Dublin')).toBeVisible()

  // Two at once; one of them has another account, and says so.
  await page.getByRole('button', { name: 'Find devices' }).click()
  const dialog = page.getByRole('dialog', { name: 'Add devices' })
  await dialog.getByRole('checkbox', { name: /^Slipway camera/ }).check()
  await dialog.getByRole('checkbox', { name: /^Recorder/ }).check()
  await dialog.getByLabel('User name').fill('admin')
  await dialog.getByLabel('Password').fill('skerrow-1')
  await dialog.getByRole('button', { name: 'Add 2 devices' }).click()
  await expect(dialog).toContainText('added, 1 camera')
  await expect(dialog).toContainText('added, but wrong password')
  await dialog.getByRole('button', { name: 'Done' }).click()

  await page.getByRole('link', { name: 'Site', exact: true }).click()
  await page.getByRole('link', { name: /^Slipway/ }).click()
  // Its live picture is there without a clip, and can be drawn on.
  const picture = page.getByRole('img', { name: 'Live picture' })
  await expect
    .poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth))
    .toBeGreaterThan(0)
  await page.getByRole('button', { name: /^Line/ }).click()
  for (const [x, y] of [
    [0.1, 0.62],
    [0.9, 0.62]
  ] as const) {
    await page.mouse.click(...(await at(page, x, y)))
    await page.waitForTimeout(350) // two quick clicks would be a double click
  }
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /Line crossing/ })).toBeVisible()
  await kept(page)

  // A clip of it: a minute is nearly the whole morning on the slipway, in which several people cross the line.
  await page.getByRole('button', { name: 'Record clip' }).click()
  await page.getByRole('radio', { name: '1 min' }).check()
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(page.getByText(/^Recording \d+ of 60 s/)).toBeVisible()
  await expect(flags(page, 'Line 1').first()).toBeVisible({ timeout: 200_000 })

  // What came once must come again: a check on that clip.
  await page.getByRole('link', { name: 'Prove', exact: true }).click()
  await page.getByRole('button', { name: 'Add check' }).click()
  const panel = page.locator('.check-panel')
  await expect(panel.getByRole('radio', { name: 'Part of a clip' })).toBeChecked()
  await panel.getByRole('button', { name: 'Save' }).click()
  await panel.getByRole('button', { name: /Run$/ }).click()
  await expect(panel).toContainText(/Triggered at .* as expected/, { timeout: 60_000 })

  const [count, seconds] = [await clicks(), (Date.now() - began) / 1000]
  test.info().annotations.push({ type: 'newcomer', description: `${count} clicks, ${seconds} s` })
  expect(count).toBeLessThan(40)
  await page.getByRole('link', { name: 'Site', exact: true }).click()
  await expect(page.locator('.camera-card')).toContainText('1 detection drawn')
})

test('cameras are added, renamed, moved and deleted, each undone', async ({ page }) => {
  await page.goto(site.address)
  await page.getByLabel('User name').fill('tess')
  await page.getByLabel('Password').fill('a-quiet-morning-by-the-store')
  await page.keyboard.press('Enter')
  const cards = page.locator('.camera-card strong')
  await expect(cards).toHaveText(['Slipway'])
  await page.getByRole('button', { name: 'Add camera' }).click()
  const dialog = page.getByRole('dialog', { name: 'Add camera' })
  await dialog.getByLabel('Name').fill('Waiting room')
  await dialog.getByRole('button', { name: /(^|\s)Add$/ }).click()
  await expect(cards).toHaveText(['Slipway', 'Waiting room'])
  await kept(page)
  const choose = async (camera: string, item: string): Promise<void> => {
    await page.getByRole('button', { name: `More for ${camera}` }).click()
    await page.getByRole('menuitem', { name: item }).click()
  }
  await choose('Waiting room', 'Move earlier')
  await expect(cards).toHaveText(['Waiting room', 'Slipway'])
  await choose('Waiting room', 'Edit…')
  await page.getByRole('dialog').getByLabel('Name').fill('Ticket hall')
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click()
  await expect(cards).toHaveText(['Ticket hall', 'Slipway'])
  await choose('Slipway', 'Delete…')
  const asked = page.getByRole('dialog', { name: 'Delete Slipway?' })
  await expect(asked).toContainText('1 detection and 1 clip will be deleted with it')
  await asked.getByRole('button', { name: 'Delete' }).click()
  await expect(cards).toHaveText(['Ticket hall'])
  await kept(page)
  await page.reload()
  await expect(cards).toHaveText(['Ticket hall'])
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(cards).toHaveText(['Ticket hall', 'Slipway'])
  await kept(page)
  await page.locator('.camera-card', { hasText: 'Slipway' }).click()
  await expect(flags(page, 'Line 1').first()).toBeVisible()
})
