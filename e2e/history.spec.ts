import { expect, test, type Page } from './test.ts'
import type { BenchView } from '../core/api.ts'
import { chip, draw, flags, kept, openBench } from './onBench.ts'

test.describe.configure({ mode: 'serial' })
const rail = (page: Page) => page.getByRole('list', { name: 'Detections' })
const detections = async (page: Page) =>
  (
    (await (await page.request.get('/api/sites/skerrow/cameras/slipway')).json()) as BenchView
  ).detections.map((k) => ({ ...k.detection, links: k.actions.actions.links }))

test('undo and redo survive a reload', async ({ page }) => {
  await openBench(page)
  await draw(page, 'l', [0.1, 0.8], [0.9, 0.8])
  await chip(page, 'Name').click()
  await page.getByLabel('Name', { exact: true }).fill('Lower edge')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await kept(page)
  await page.reload()
  await expect(chip(page, 'Name')).toHaveText('Lower edge')
  await page.keyboard.press('Control+z')
  await expect(chip(page, 'Name')).toHaveText('Line 1')
  await kept(page)
  await page.reload()
  await expect(chip(page, 'Name')).toHaveText('Line 1')
  await page.keyboard.press('Control+Shift+Z')
  await expect(chip(page, 'Name')).toHaveText('Lower edge')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(rail(page)).not.toContainText('Line 1')
  await kept(page)
})

test('the history shows who changed what, compares two states, restores one, and undoes that', async ({
  page
}) => {
  await openBench(page)
  await rail(page)
    .getByRole('button', { name: /Quay edge/ })
    .first()
    .click()
  await chip(page, 'Confirmation time').click()
  await page.getByRole('spinbutton', { name: /^Confirmation time/ }).fill('1.5')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await kept(page)
  await draw(page, 'l', [0.1, 0.8], [0.9, 0.8])
  await kept(page)

  await page.getByRole('button', { name: 'History' }).click()
  const edits = page.getByRole('region', { name: 'Edits' })
  await expect(edits.getByRole('button').first()).toContainText(/Draw Line 1Isla Brae/)
  await edits
    .getByRole('button', { name: /Change confirmation time/ })
    .first()
    .click()
  const comparison = page.getByRole('region', { name: 'Comparison' })
  await expect(comparison).toContainText('Line 1 is new')
  // Against the state before: the third edit from the top at that time was the delivery or an earlier test's.
  const earlier = edits.getByRole('button').nth(2)
  await earlier.click()
  await expect(comparison).toContainText('confirmation time: 0.5 s → 1.5 s')
  await comparison.getByRole('button', { name: 'Restore this state' }).click()
  await page.keyboard.press('Escape')
  await expect(rail(page)).not.toContainText('Line 1')
  await kept(page)
  expect((await detections(page)).find((d) => d.name === 'Quay edge')).toMatchObject({
    confirmSeconds: 0.5
  })
  await page.keyboard.press('Control+z')
  await expect(rail(page)).toContainText('Line 1')
  await kept(page)
})

test('edits several at once: sensitivity, classes, schedule, actions, each one step', async ({
  page
}) => {
  await openBench(page)
  await page.getByRole('button', { name: 'Select several' }).click()
  const bulk = page.getByRole('region', { name: 'Edit several' })
  await expect(bulk.getByRole('button', { name: 'Set sensitivity' })).toBeDisabled()
  await bulk.getByRole('button', { name: 'All' }).click()
  await bulk.getByRole('spinbutton', { name: 'Sensitivity for all selected' }).fill('72')
  await bulk.getByRole('button', { name: 'Set sensitivity' }).click()
  await bulk.getByLabel('Action for all selected').click()
  await page.getByTitle('Northwatch station', { exact: true }).click()
  await bulk.getByRole('button', { name: 'Link', exact: true }).click()
  await bulk.getByLabel('Schedule for all selected').click()
  await page.getByTitle('Nights', { exact: true }).click()
  await kept(page)
  expect(await detections(page)).toEqual(
    (await detections(page)).map(() =>
      expect.objectContaining({
        sensitivity: 72,
        links: expect.arrayContaining(['station']),
        schedule: 'nights'
      })
    )
  )
  await bulk.getByRole('button', { name: 'Done' }).click()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z')
  await kept(page)
  expect((await detections(page)).some((d) => 'sensitivity' in d && d.sensitivity === 72)).toBe(
    false
  )
})

test('reorders by menu and keyboard; a template fills every gate', async ({ page }) => {
  await openBench(page)
  await page.getByRole('button', { name: 'More for Line 1' }).click()
  await page.getByRole('menuitem', { name: 'Move up' }).click()
  await expect(rail(page).getByRole('listitem').first()).toContainText('Line 1')
  await kept(page)
  await page.reload()
  await expect(rail(page).getByRole('listitem').first()).toContainText('Line 1')

  await page.getByRole('button', { name: 'Templates' }).click()
  await page.getByRole('menuitem', { name: /^Doorway, in and out/ }).click()
  await expect(page.getByText('Doorway, in and out:')).toBeVisible()
  for (const [x, y] of [
    [0.4, 0.5],
    [0.65, 0.5],
    [0.75, 0.75],
    [0.3, 0.75]
  ]) {
    const box = (await page.locator('.stage canvas').first().boundingBox())!
    await page.mouse.click(box.x + x! * box.width, box.y + y! * box.height)
    await page.waitForTimeout(350)
  }
  await page.keyboard.press('Enter')
  await expect(rail(page)).toContainText('A person enters Comes in')
  await expect(rail(page)).toContainText('A person leaves Goes out')
  // The rail has just grown, and the button with it: a press may come to where it was.
  const care = page.getByRole('menuitem', { name: /^Camera health/ })
  await expect(async () => {
    if (!(await care.isVisible())) await page.getByRole('button', { name: 'Templates' }).click()
    await expect(care).toBeVisible({ timeout: 2000 })
  }).toPass()
  await care.click()
  await expect(rail(page)).toContainText('Video loss, Video loss')
  await kept(page)
  expect((await detections(page)).map((d) => d.kind)).toEqual([
    'line',
    'line',
    'entry',
    'exit',
    'tamper',
    'signalLoss'
  ])
  // Each was one step.
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(rail(page).getByRole('listitem')).toHaveCount(2)
  await expect(flags(page, 'Quay edge')).toHaveCount(2)
})
