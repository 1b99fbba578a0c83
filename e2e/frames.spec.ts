import { expect, test, type Page } from './test.ts'

/** Opens a camera's Bench with one of its clips analysed. */
async function openBench(page: Page, camera: string, clip?: string): Promise<void> {
  await page.goto(`/bench/${camera}`)
  if (clip) {
    await page.locator('.clip-select').click()
    await page.locator('.ant-select-item-option', { hasText: clip }).click()
    await expect(page.locator('.clip-select')).toContainText(clip)
  }
  await expect(page.locator('.target-lane').first()).toBeVisible({ timeout: 120_000 })
}
const item = (page: Page, name: string) => page.locator('.rail-item', { hasText: name })
const flags = (page: Page, name: string) =>
  page.getByRole('button', { name: new RegExp(`^Trigger of ${name},`) })
const kept = (page: Page) => expect(page.getByRole('status')).toHaveText('All changes saved')
const curve = (page: Page) => page.getByRole('region', { name: 'Measured curve' })
async function at(page: Page, x: number, y: number): Promise<[number, number]> {
  const box = (await page.locator('.stage canvas').first().boundingBox())!
  return [box.x + x * box.width, box.y + y * box.height]
}

test('motion: shows the curve and limit; paints cells by pointer and keyboard; keeps them after a reload', async ({
  page
}) => {
  await openBench(page, 'quay-path')
  await item(page, 'All movement').getByRole('button').first().click()
  await expect(curve(page)).toContainText('limit 2%')
  const whole = await flags(page, 'All movement').count()
  expect(whole).toBeGreaterThan(2)
  await flags(page, 'All movement').first().click()
  await expect(page.locator('.verdict')).toHaveText(
    /^Triggered at \d+\.\d s: all conditions met\.$/
  )

  // The sky and the trees' crowns, where nothing that matters is.
  const tools = page.getByRole('toolbar', { name: 'Cells' })
  await tools.getByText('Paint off').click()
  await tools.getByText('Rectangle').click()
  await page.mouse.move(...(await at(page, 0.01, 0.01)))
  await page.mouse.down()
  await page.mouse.move(...(await at(page, 0.5, 0.2)), { steps: 3 })
  await page.mouse.move(...(await at(page, 0.99, 0.24)), { steps: 3 })
  await page.mouse.up()
  await expect(item(page, 'All movement')).toContainText('286 of 396 cells') // five of eighteen rows are off
  await kept(page)
  await page.reload()
  await expect(item(page, 'All movement')).toContainText('286 of 396 cells')
  // While the curve is on its way its room is kept: the picture stays where it is.
  await page.locator('.curve-room').waitFor()
  const before = await at(page, 0, 0)
  await expect(curve(page)).toContainText('limit 2%')
  expect(await at(page, 0, 0)).toEqual(before)

  await page.getByRole('application', { name: 'Picture' }).focus()
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Enter')
  await expect(item(page, 'All movement')).toContainText('285 of 396 cells')
  await page.keyboard.press('Control+z')
  await expect(item(page, 'All movement')).toContainText('286 of 396 cells')

  await tools.getByRole('button', { name: 'None' }).click()
  await expect(page.getByText('Paint the cells where motion counts.')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await expect(item(page, 'All movement')).toContainText('286 of 396 cells') // left without a cell: as it was
  await item(page, 'All movement').getByRole('button').first().click()
  await tools.getByRole('button', { name: 'All', exact: true }).click()
  await expect(item(page, 'All movement')).toContainText('the whole picture')
  await kept(page)

  // Parked, for devices that switch motion on again by themselves, it watches nothing.
  await page
    .getByRole('complementary', { name: 'Inspector' })
    .getByRole('button', { name: /(^|\s)Park$/ })
    .click()
  await expect(item(page, 'All movement')).toContainText('parked: keeps its place, detects nothing')
  await expect(flags(page, 'All movement')).toHaveCount(0)
  await page.getByRole('button', { name: 'Unpark' }).click()
  await expect(flags(page, 'All movement')).toHaveCount(whole)
  await kept(page)
})

test('compares what motion, motion by class and a line would send, and how much of it is wanted', async ({
  page
}) => {
  await openBench(page, 'quay-path')
  await expect(flags(page, 'All movement').first()).toBeVisible()
  await page.getByRole('button', { name: 'Compare' }).click()
  const motion = page.getByRole('region', { name: 'All movement' })
  await expect(motion).toContainText(/\d+ wanted · [1-9]\d* nuisances?/)
  await expect(page.getByRole('region', { name: 'People moving' })).toContainText(
    /[1-9]\d* wanted · 0 nuisances/
  )
  await expect(page.getByRole('region', { name: 'Path crossing' })).toContainText(
    /[1-9]\d* wanted · 0 nuisances/
  )
  await expect(page.getByText('by the clip’s ground truth')).toBeVisible()
  await page
    .getByRole('button', { name: /^Path crossing at .*, wanted$/ })
    .first()
    .click()
  await expect(page).toHaveURL(/detection=path-crossing/)
  await expect(page.locator('.verdict')).toHaveText(/^Triggered/)
})

test('tamper: names it with its curves; learns a new reference on request', async ({ page }) => {
  await openBench(page, 'workshop-yard')
  await item(page, 'Yard camera care').getByRole('button').first().click()
  await expect(
    page.getByRole('button', { name: /^Trigger of Yard camera care, covered, at 1[78]\.\d s$/ })
  ).toHaveCount(1)
  await flags(page, 'Yard camera care').click()
  for (const name of ['covered', 'dark', 'washed out', 'out of focus', 'moved'])
    await expect(curve(page)).toContainText(name)
  await expect(page.locator('.ladder')).toContainText(/% of the way to covered/)
  await page.getByRole('button', { name: 'Use this moment' }).click()
  await expect(page.getByText(/and from 00:1[78]\.\d/)).toBeVisible({ timeout: 60_000 })
  await expect(flags(page, 'Yard camera care')).toHaveCount(0) // what is seen there is as it should be
  await page.getByRole('button', { name: 'Start of clip only' }).click()
  await expect(flags(page, 'Yard camera care')).toHaveCount(1)
})

test('faces and contacts: a mask at the ticket window, the door after hours', async ({ page }) => {
  await openBench(page, 'waiting-room', 'At the ticket window')
  await item(page, 'Ticket window').getByRole('button').first().click()
  await expect(flags(page, 'Ticket window')).toHaveCount(1)
  await flags(page, 'Ticket window').click()
  await expect(page.locator('.ladder')).toContainText('with a mask')
  await page.getByRole('button', { name: /^Mask: / }).click()
  await page.getByText('Without a mask', { exact: true }).click()
  const masked = page.getByRole('button', { name: /^Trigger of Ticket window, target 2,/ })
  await expect(masked).toHaveCount(0)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await expect(masked).toHaveCount(1)

  await openBench(page, 'waiting-room', 'Locked, and somebody is inside')
  await item(page, 'Door after hours').getByRole('button').first().click()
  await expect(
    page.getByRole('button', { name: /^Trigger of Door after hours, contact input, at 8\.1 s$/ })
  ).toBeVisible()
})

test('makes a clip from a script with progress, and tries another kind of detection on it', async ({
  page
}) => {
  await page.goto('/bench/fuel-pontoon')
  const dialog = page.getByRole('dialog', { name: 'Make clip' })
  // While the Bench is still reading, the button may be replaced under the pointer.
  await expect(async () => {
    if (!(await dialog.isVisible()))
      await page
        .getByRole('button', { name: /Make (a )?clip/ })
        .first()
        .click({ timeout: 3000 })
    await expect(dialog).toBeVisible({ timeout: 10_000 })
  }).toPass({ timeout: 60_000 })
  await dialog.getByLabel('Name').fill('Short and foggy')
  await dialog.getByLabel('Length').fill('12')
  await dialog.getByLabel('Length').press('Tab')
  await dialog.getByLabel('Fault').click()
  await page.locator('.ant-select-item-option', { hasText: 'Cable cut' }).click()
  await dialog.getByLabel('Fault begins').fill('3')
  await dialog.getByLabel('Fault ends').fill('11')
  await dialog.getByLabel('Fault ends').press('Tab')
  await expect(dialog.getByRole('img', { name: 'Fuel pontoon at 5.0 s' })).toBeVisible()
  await dialog.getByRole('button', { name: /(^|\s)Make clip$/ }).click()
  await expect(page.getByRole('heading', { name: 'Making Short and foggy' })).toBeVisible()
  await expect(page.locator('.picture video')).toBeVisible({ timeout: 60_000 })

  await page.getByRole('button', { name: 'Other kinds' }).click()
  await page.getByRole('menuitem', { name: 'Video loss' }).click()
  await expect(page.getByRole('heading', { name: 'A · Video loss' })).toBeVisible()
  await expect(
    page.getByRole('button', { name: /^Trigger of Video loss, video loss, at 7\.9 s$/ })
  ).toBeVisible()
  await kept(page)
  await page.keyboard.press('Delete')
  await expect(page.locator('.rail-item')).toHaveCount(0)
})
