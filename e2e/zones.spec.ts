import { expect, test, type Page } from './test.ts'
import type { Detection } from '../core/formats/plan.ts'
import { addCondition, at, chip, drag, draw, flags, kept, openBench } from './onBench.ts'

test.describe.configure({ mode: 'serial' })
type ZoneDetection = Extract<Detection, { zone: unknown }>

/** The zone as the server keeps it. */
const keptZone = async (page: Page): Promise<ZoneDetection> => {
  await kept(page)
  const plan = (await (
    await page.request.get('/api/sites/skerrow/cameras/slipway/plan')
  ).json()) as {
    cameras: { detections: ZoneDetection[] }[]
  }
  return plan.cameras[0]!.detections.find((d) => 'zone' in d)!
}
const chooseZone = async (page: Page): Promise<void> => {
  await page
    .getByRole('list', { name: 'Detections' })
    .getByRole('button', { name: /Zone 1/ })
    .first()
    .click()
}

test('a zone on the ramp triggers after the dwell, shown beside how long targets stay', async ({
  page
}) => {
  await openBench(page)
  await draw(page, 'z', [0.4, 0.5], [0.65, 0.5], [0.75, 0.75], [0.3, 0.75])
  await expect(page.getByRole('heading', { name: 'B · Intrusion' })).toBeVisible()
  await expect(page.getByRole('list', { name: 'Detections' })).toContainText(
    'A person is in Zone 1 for 3 s, half the body'
  )
  await expect(flags(page, 'Zone 1').first()).toBeVisible()
  const zone = await keptZone(page)
  expect(zone).toMatchObject({ kind: 'intrusion', classes: ['person'], dwellSeconds: 3 })
  ;[
    [0.4, 0.5],
    [0.65, 0.5],
    [0.75, 0.75],
    [0.3, 0.75]
  ].forEach((p, i) =>
    p.forEach((v, k) => expect(Math.abs(zone.zone[i]![k]! - v)).toBeLessThan(0.005))
  )

  await chip(page, 'Dwell').click()
  await expect(page.locator('.stays-chart figcaption')).toContainText(
    /\d+ pass by\s+\d+ stay\s+\d+ of \d+ reach the dwell/
  )
  await page.getByRole('spinbutton', { name: /^Dwell/ }).fill('60')
  await page.keyboard.press('Enter')
  await expect(page.locator('.stays-chart figcaption')).toContainText(/ 0 of \d+ reach the dwell/)
  await expect(flags(page, 'Zone 1')).toHaveCount(0)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await expect(flags(page, 'Zone 1').first()).toBeVisible()
})

test('the sentence of a zone says what counts', async ({ page }) => {
  await openBench(page)
  await chooseZone(page)
  await chip(page, 'What counts').click()
  await page.getByRole('radio', { name: /^Zone entry/ }).click()
  await expect(page.getByRole('heading', { name: 'B · Zone entry' })).toBeVisible()
  await expect(chip(page, 'Dwell')).toHaveCount(0)
  await page.getByRole('radio', { name: /^Loitering/ }).click()
  await page.keyboard.press('Escape')
  await expect(chip(page, 'Dwell')).toHaveText('for 30\u00a0s')
  await expect(chip(page, 'Grace time')).toHaveText('outside for at most 10\u00a0s')
  expect(await keptZone(page)).toMatchObject({
    kind: 'loitering',
    dwellSeconds: 30,
    graceSeconds: 10,
    classes: ['person']
  })
  await addCondition(page, 'Number together')
  await page.getByRole('spinbutton', { name: /^Targets at the same time/ }).fill('2')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('list', { name: 'Detections' })).toContainText(
    '2 together: a person lingers in Zone 1'
  )
})

test('moves, adds and deletes vertices; shows and refuses a self-crossing outline', async ({
  page
}) => {
  await openBench(page)
  await chooseZone(page)
  const before = (await keptZone(page)).zone
  await drag(page, [0.4, 0.5], [0.45, 0.7], [0.5, 0.85])
  await expect(page.getByRole('alert')).toContainText('The zone crosses itself')
  expect((await keptZone(page)).zone).toEqual(before)

  await drag(page, [0.4, 0.5], [0.42, 0.45])
  await expect.poll(async () => (await keptZone(page)).zone[0]![1]).toBeCloseTo(0.45, 2)
  await expect(page.getByRole('alert')).toHaveCount(0)
  const [x, y] = await at(page, 0.525, 0.75)
  await page.mouse.dblclick(x, y)
  await expect.poll(async () => (await keptZone(page)).zone.length).toBe(5)

  // By keyboard: the first vertex nudged, the second deleted, and taken back.
  await page.getByRole('application').focus()
  await page.keyboard.press('Tab')
  const first = (await keptZone(page)).zone[0]!
  await page.keyboard.press('Shift+ArrowUp')
  await expect.poll(async () => (await keptZone(page)).zone[0]![1]).toBeCloseTo(first[1] - 0.02, 4)
  await page.keyboard.press('Tab')
  await page.keyboard.press('Delete')
  await expect.poll(async () => (await keptZone(page)).zone.length).toBe(4)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await keptZone(page)).zone.length).toBe(5)
})

test('by keyboard alone: a self-crossing zone cannot be finished until a vertex is removed', async ({
  page
}) => {
  await openBench(page)
  await page.keyboard.press('z')
  const go = async (key: string, times: number): Promise<void> => {
    for (let i = 0; i < times; i++) await page.keyboard.press(`Shift+${key}`)
  }
  await page.keyboard.press(' ')
  await go('ArrowRight', 3)
  await page.keyboard.press(' ')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Click where the zone goes.')).toBeVisible()
  await go('ArrowDown', 2)
  await go('ArrowLeft', 3)
  await page.keyboard.press(' ')
  await go('ArrowRight', 3)
  await page.keyboard.press(' ')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('The zone crosses itself')
  await page.keyboard.press('Backspace')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('list', { name: 'Detections' })).toContainText('Zone 2')
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('list', { name: 'Detections' })).not.toContainText('Zone 2')
})
