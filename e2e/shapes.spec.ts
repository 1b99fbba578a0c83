import { expect, test, type Page } from './test.ts'
import type { BenchView } from '../core/api.ts'
import type { LineDetection } from '../core/formats/plan.ts'
import { at, chip, drag, draw, flags, kept, openBench } from './onBench.ts'

test.describe.configure({ mode: 'serial' })
const view = async (page: Page, camera = 'slipway'): Promise<BenchView> =>
  (await (await page.request.get(`/api/sites/skerrow/cameras/${camera}`)).json()) as BenchView
const rail = (page: Page) => page.getByRole('list', { name: 'Detections' })
const lineOf = async (page: Page, name: string) => {
  await kept(page)
  return (await view(page)).detections
    .map((k) => k.detection)
    .find((d) => d.name === name) as LineDetection
}

test('an ignore area stops targets inside it; deletes, undoes, and saves', async ({ page }) => {
  await openBench(page)
  await draw(page, 'z', [0.4, 0.5], [0.65, 0.5], [0.75, 0.75], [0.3, 0.75])
  await expect(flags(page, 'Zone 1').first()).toBeVisible()
  const count = await flags(page, 'Zone 1').count()
  await draw(page, 'i', [0.2, 0.3], [0.85, 0.3], [0.9, 0.99], [0.1, 0.99])
  await expect(page.getByRole('heading', { name: 'Ignore area 1' })).toBeVisible()
  await expect(flags(page, 'Zone 1')).toHaveCount(0)
  await kept(page)
  expect((await view(page)).scene.ignore).toHaveLength(1)
  await page.reload()
  await expect(page.getByRole('heading', { name: 'Ignore area 1' })).toBeVisible()
  await rail(page)
    .getByRole('button', { name: /Zone 1/ })
    .first()
    .click()
  await page
    .locator('.target-lane')
    .getByRole('button', { name: /^person 5,/ })
    .click()
  await expect(page.getByRole('region', { name: 'Conditions' })).toContainText(
    'stands in an ignore area'
  )
  await page.getByRole('button', { name: 'Ignore area 1', exact: true }).click()
  await page.getByRole('application').focus()
  await page.keyboard.press('Delete')
  await expect(flags(page, 'Zone 1')).toHaveCount(count)
  await page.keyboard.press('Control+z')
  await expect(flags(page, 'Zone 1')).toHaveCount(0)
  await page.getByRole('button', { name: 'Delete ignore area 1' }).last().click()
  await expect(flags(page, 'Zone 1')).toHaveCount(count)
  await page.getByRole('button', { name: 'More for Zone 1' }).click()
  await page.getByRole('menuitem', { name: 'Delete' }).click()
  await expect(rail(page).getByRole('listitem')).toHaveCount(1)
  await kept(page)
})

test('duplicates, reverses and splits by keyboard', async ({ page }) => {
  await openBench(page)
  await draw(page, 'l', [0.2, 0.8], [0.5, 0.7], [0.8, 0.8])
  await expect(chip(page, 'Name')).toHaveText('Line 1')
  await page.keyboard.press('d')
  await expect(rail(page).getByRole('listitem')).toHaveCount(3)
  await expect(chip(page, 'Name')).toHaveText('Line 2')
  const [first, copy] = [await lineOf(page, 'Line 1'), await lineOf(page, 'Line 2')]
  expect(
    copy.line.map(([x, y]) => [x - 0.03, y - 0.03].map((v) => Math.round(v * 1e4) / 1e4))
  ).toEqual(first.line)
  await chip(page, 'Direction and sides').click()
  await page.getByRole('radio', { name: 'left → right' }).click()
  await page.keyboard.press('Escape')
  await page.getByRole('application').focus()
  await page.keyboard.press('m')
  await expect(chip(page, 'Direction and sides')).toHaveText('right → left')
  // A vertex more after the first, and away again.
  await page.keyboard.press('Tab')
  await expect(page.getByRole('application')).toHaveAccessibleName('Picture: Line 2, vertex 1 of 3')
  await page.keyboard.press('v')
  await expect(page.getByRole('application')).toHaveAccessibleName('Picture: Line 2, vertex 2 of 4')
  const [p, middle, q] = (await lineOf(page, 'Line 2')).line as [
    readonly [number, number],
    readonly [number, number],
    readonly [number, number]
  ]
  expect(middle[0]).toBeCloseTo((p[0] + q[0]) / 2, 6)
  await page.keyboard.press('Delete')
  await expect(page.getByRole('application')).toHaveAccessibleName('Picture: Line 2')
  await page.keyboard.press('x')
  await expect(page.getByRole('alert')).toContainText('Select the vertex')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Tab')
  await page.keyboard.press('x')
  await expect(rail(page).getByRole('listitem')).toHaveCount(4)
  const [a, b] = [await lineOf(page, 'Line 2'), await lineOf(page, 'Line 3')]
  expect(a.line).toEqual(copy.line.slice(0, 2))
  expect(b.line).toEqual(copy.line.slice(1))
  expect(b.direction).toBe('rightToLeft')
  await page.keyboard.press('Control+z')
  await expect(rail(page).getByRole('listitem')).toHaveCount(3)
  await kept(page)
})

test('snaps to 45° with Shift; zooms with the wheel and resets with 0', async ({ page }) => {
  await openBench(page)
  await page.keyboard.press('l')
  await page.mouse.click(...(await at(page, 0.2, 0.3)))
  await page.waitForTimeout(350)
  await page.keyboard.down('Shift')
  await page.mouse.move(...(await at(page, 0.5, 0.33)))
  await page.mouse.click(...(await at(page, 0.5, 0.33)))
  await page.keyboard.up('Shift')
  await page.keyboard.press('Enter')
  const level = await lineOf(page, 'Line 3')
  expect(level.line[1]![1]).toBe(level.line[0]![1])

  const [x, y] = await at(page, 0.5, 0.3)
  await page.mouse.move(x, y)
  await page.mouse.wheel(0, -600)
  await expect(page.getByRole('button', { name: /× 0 whole picture/ })).toBeVisible()
  // The end of the line is under the pointer still, as that place was kept; dragged to the left.
  await page.mouse.down()
  await page.mouse.move(x - 60, y, { steps: 5 })
  await page.mouse.up()
  const moved = await lineOf(page, 'Line 3')
  const width = (await page.locator('.stage canvas').first().boundingBox())!.width
  const zoom = Number(
    /[\d.]+/.exec((await page.getByRole('button', { name: /whole picture/ }).textContent())!)![0]
  )
  expect(Math.abs(level.line[1]![0] - moved.line[1]![0] - 60 / width / zoom)).toBeLessThan(0.003)
  await page.keyboard.press('0')
  await expect(page.getByRole('button', { name: /whole picture/ })).toHaveCount(0)
})

test('cycles through overlapping shapes; hides and locks', async ({ page }) => {
  await openBench(page)
  await draw(page, 'z', [0.3, 0.2], [0.6, 0.2], [0.6, 0.45], [0.3, 0.45])
  await draw(page, 'z', [0.35, 0.22], [0.65, 0.22], [0.65, 0.4], [0.35, 0.4])
  await expect(chip(page, 'Name')).toHaveText('Zone 2')
  const place = await at(page, 0.5, 0.36)
  await page.keyboard.down('Alt')
  await page.mouse.click(...place)
  await expect(chip(page, 'Name')).toHaveText('Zone 1')
  await page.mouse.click(...place)
  await page.keyboard.up('Alt')
  await expect(chip(page, 'Name')).toHaveText('Zone 2')
  await page.getByRole('button', { name: 'Lock shape' }).click()
  const before = JSON.stringify((await view(page)).detections)
  await drag(page, [0.5, 0.37], [0.7, 0.6])
  await page.getByRole('application').focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Delete')
  await kept(page)
  expect(JSON.stringify((await view(page)).detections)).toBe(before)
  await page.getByRole('button', { name: 'Unlock shape' }).click()
  await page.getByRole('button', { name: 'Hide on picture' }).click()
  await expect(rail(page).getByTitle('Hidden')).toHaveCount(1)
  await page.reload()
  await expect(rail(page).getByTitle('Hidden')).toHaveCount(1)
  await page.keyboard.press('h')
  await expect(rail(page).getByTitle('Hidden')).toHaveCount(0)
})

test('copies to another camera, and undoes it', async ({ page }) => {
  await openBench(page)
  await rail(page)
    .getByRole('button', { name: /Line 1/ })
    .first()
    .click()
  const before = (await view(page, 'fuel-pontoon')).detections.length
  await page.getByRole('button', { name: 'Copy to…' }).click()
  await page.getByRole('menuitem', { name: 'Fuel pontoon' }).click()
  await expect(
    page.getByText(/copied to Fuel pontoon, at the same place in the picture/)
  ).toBeVisible()
  const there = (await view(page, 'fuel-pontoon')).detections
  expect(there).toHaveLength(before + 1)
  expect((there[before]!.detection as { line: unknown }).line).toEqual(
    (await lineOf(page, 'Line 1')).line
  )
  await page.locator('.ant-notification').getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => (await view(page, 'fuel-pontoon')).detections.length).toBe(before)
})
