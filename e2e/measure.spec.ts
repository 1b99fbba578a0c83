import { expect, test } from './test.ts'
import type { BenchView } from '../core/api.ts'
import { addCondition, at, chip, draw, flags, kept, openBench, painted } from './onBench.ts'

test.describe.configure({ mode: 'serial' })
const panel = 'Calibrate'

test('calibrates from the clip’s people to the camera that painted them; saves, undoes, redoes', async ({
  page
}) => {
  await openBench(page)
  await page.getByRole('button', { name: /(^|\s)Calibrate$/ }).click()
  const tool = page.getByRole('complementary', { name: panel })
  await expect(tool).toContainText('Mark at least 3 people')
  await tool.getByRole('button', { name: 'Use the people in this clip' }).click()
  await expect(tool.getByRole('listitem')).toHaveCount(12)
  // The lens of the scene's own camera; it hangs at 4.2 m and looks down by 13° (demo/scenes/slipway.json).
  await tool.getByRole('spinbutton', { name: 'Lens, if known' }).fill('36')
  await page.keyboard.press('Enter')
  const metres = Number(/Camera height\s*([\d.]+) m/.exec((await tool.textContent())!)![1])
  expect(Math.abs(metres - 4.2)).toBeLessThan(0.35)
  await tool.getByRole('switch').click()
  await tool.getByRole('button', { name: 'Save calibration' }).click()
  await expect(page.getByRole('region', { name: 'Scene' })).toContainText(
    /Calibrated: camera height 4\.\d m/
  )
  await kept(page)
  const { scene } = (await (
    await page.request.get('/api/sites/skerrow/cameras/slipway')
  ).json()) as BenchView
  expect(scene.marks).toMatchObject({ from: 'people', fieldOfView: 36 })
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: /(^|\s)Calibrate$/ })).toBeVisible()
  await page.keyboard.press('Control+Shift+Z')
  await expect(page.getByRole('button', { name: 'Recalibrate' })).toBeVisible()
  await kept(page)
})

test('size limits in metres: a limit above all people stops them, and Why says so in metres', async ({
  page
}) => {
  await openBench(page)
  await page
    .getByRole('list', { name: 'Detections' })
    .getByRole('button', { name: /Quay edge/ })
    .first()
    .click()
  await addCondition(page, 'Size limits')
  await page.getByText('Metres', { exact: true }).click()
  await page.getByRole('button', { name: /^Fit to the clip/ }).click()
  await expect(flags(page, 'Quay edge')).toHaveCount(2)
  await page.getByRole('spinbutton', { name: 'Minimum height' }).fill('2.4')
  await page.keyboard.press('Enter')
  await expect(flags(page, 'Quay edge')).toHaveCount(0)
  await page.keyboard.press('Escape')
  await page
    .locator('.target-lane')
    .getByRole('button', { name: /^person 5,/ })
    .click()
  await expect(page.getByRole('region', { name: 'Conditions' })).toContainText(/1\.[6-9]\d? m/)
  await page.keyboard.press('Escape')
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z')
  await expect(flags(page, 'Quay edge')).toHaveCount(2)
  await kept(page)
})

test('by keyboard alone: marks feet and heads, and says what is missing', async ({ page }) => {
  await openBench(page)
  await page.getByRole('button', { name: 'Recalibrate' }).focus()
  await page.keyboard.press('Enter')
  const tool = page.getByRole('complementary', { name: panel })
  await page.getByRole('application').focus()
  for (let i = 0; i < 12; i++) await page.keyboard.press('Backspace')
  await expect(tool.getByRole('listitem')).toHaveCount(0)
  const go = async (key: string, times: number): Promise<void> => {
    for (let i = 0; i < times; i++) await page.keyboard.press(key)
  }
  // Feet at 0.6, then a head a tenth and a half above; one farther away and one nearer in the same way.
  await page.keyboard.press(' ')
  await go('Shift+ArrowUp', 1)
  await go('ArrowUp', 5)
  await page.keyboard.press(' ')
  await expect(tool.getByRole('listitem')).toHaveCount(1)
  await expect(tool).toContainText('Mark at least 2 people')
  await go('Shift+ArrowDown', 4)
  await page.keyboard.press(' ')
  await go('Shift+ArrowUp', 3)
  await page.keyboard.press(' ')
  await expect(tool.getByRole('listitem')).toHaveCount(2)
  await expect(tool.getByRole('button', { name: 'Save calibration' })).toBeEnabled()
  await page.keyboard.press('Escape')
  await expect(tool).toHaveCount(0)
})

test('size limits on the picture: drawn with F, dragged, fitted to the clip', async ({ page }) => {
  await openBench(page)
  await draw(page, 'z', [0.4, 0.48], [0.65, 0.51], [0.75, 0.75], [0.3, 0.75])
  await expect(page.getByRole('list', { name: 'Detections' })).toContainText('Zone 1')
  await kept(page)
  await expect(chip(page, 'Size limits')).toHaveCount(0)
  await page.keyboard.press('f')
  await painted(page)
  // The smallest frame stands at the zone's far end, its corner half its width to the right.
  const [x, y] = await at(page, 0.4 + 0.01, 0.48 - 0.06)
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(...(await at(page, 0.42, 0.38)), { steps: 5 })
  await page.mouse.up()
  await expect(chip(page, 'Size limits')).toHaveText(
    /^larger than (3\.9|4|4\.1) × (9\.[89]|10(\.[12])?)% of the picture$/
  )
  await chip(page, 'Size limits').click()
  await page.getByRole('button', { name: /^Fit to the clip \(\d targets? at the shape\)/ }).click()
  await page.keyboard.press('Escape')
  await expect(chip(page, 'Size limits')).toHaveText(
    /^between [\d.]+ × [\d.]+% and [\d.]+ × [\d.]+% of the picture$/
  )
  await expect(flags(page, 'Zone 1').first()).toBeVisible()
})
