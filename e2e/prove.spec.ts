import { expect, test, type Page } from './test.ts'
import type { BenchView } from '../core/api.ts'
import type { ProvingView } from '../core/proving/views.ts'

test.describe.configure({ mode: 'serial' })
const view = async (page: Page): Promise<ProvingView> =>
  (await page.request.get('/api/sites/skerrow/proving')).json()
const panel = (page: Page) => page.getByRole('complementary', { name: 'Check' })
/** Gives the line of the Slipway another direction, as somebody may do on the Bench. */
async function direct(page: Page, direction: string): Promise<void> {
  const { detections } = (await (
    await page.request.get('/api/sites/skerrow/cameras/slipway')
  ).json()) as BenchView
  const { detection, position, version } = detections[0]!
  expect(
    (
      await page.request.put('/api/sites/skerrow/cameras/slipway/detections/quay-edge', {
        data: { detection: { ...detection, direction }, position, version }
      })
    ).ok()
  ).toBe(true)
}

test('proposes checks gate by gate; added and run, each says what happened and which gate decided', async ({
  page
}) => {
  await page.goto('/prove')
  // Begun again after a failure, they are kept already.
  if (!(await view(page)).checks.length) {
    await expect(page.getByText(/^\d{3} checks proposed/)).toBeVisible({ timeout: 30_000 })
    await page.getByRole('button', { name: /^Add all \d+/ }).click()
  }
  await expect(page.getByText(/^\d+ checks$/)).toBeVisible()
  await page
    .getByRole('navigation', { name: 'Detections' })
    .getByRole('button', { name: /Door after hours/ })
    .click()
  await page.getByRole('button', { name: 'Run these' }).click()
  await expect(page.getByText(/^Last run:/)).toBeVisible({ timeout: 60_000 })
  await expect(
    page
      .getByRole('navigation', { name: 'Detections' })
      .getByRole('button', { name: /Door after hours/ })
  ).toContainText('13 of 13')

  await page.getByRole('button', { name: /After the schedule ends/ }).click()
  await expect(panel(page)).toContainText('No trigger, as expected')
  await expect(panel(page).getByRole('region', { name: 'Conditions' })).toContainText(
    /Schedule.*Nights/
  )
  await page.getByRole('button', { name: /Floodlight acts within its schedule/ }).click()
  await expect(panel(page).getByRole('region', { name: 'Actions' })).toContainText(
    'Floodlight: ran'
  )
})

test('a changed setting puts proofs out of date; running again shows what got worse and since when; the site blocks until it is fixed', async ({
  page
}) => {
  await page.goto('/prove?camera=slipway&detection=quay-edge')
  const asked = (await view(page)).checks
    .filter(
      (c) =>
        c.check.detection === 'quay-edge' &&
        c.check.by.how === 'walk' &&
        c.check.by.through === 'truth'
    )
    .map((c) => ({ camera: c.camera, check: c.check.id }))
  const run = async (): Promise<void> => {
    const { id } = (await (
      await page.request.post('/api/sites/skerrow/proving/runs', { data: { checks: asked } })
    ).json()) as { id: number }
    await expect
      .poll(
        async () =>
          (
            (await (await page.request.get(`/api/sites/skerrow/proving/runs/${id}`)).json()) as {
              state: string
            }
          ).state,
        { timeout: 60_000 }
      )
      .toBe('finished')
  }
  await run()
  await direct(page, 'rightToLeft')
  await page.getByText('Out of date', { exact: true }).click()
  await expect(page.getByRole('button', { name: /^out of date From Water to Land/ })).toBeVisible()
  await run()
  const worse = page.getByRole('region', { name: 'Newly failed' })
  await expect(worse).toContainText('From Water to Land since “Edit Quay edge” by Isla Brae')
  await worse.getByRole('button', { name: 'From Water to Land', exact: true }).click()
  await expect(panel(page)).toContainText('Expected a trigger, none came')
  await expect(
    panel(page)
      .getByRole('region', { name: 'Conditions' })
      .getByRole('listitem')
      .filter({ hasText: 'Direction' })
  ).toHaveClass('stopped')

  await page.goto('/site')
  await expect(page.getByRole('link', { name: /Slipway/ }).first()).toContainText('Proven blocked')
  await page.getByRole('button', { name: /^Show \d+ more$/ }).click()
  await expect(page.getByText(/Quay edge failed \d+ checks/)).toBeVisible()
  await direct(page, 'leftToRight')
  await run()
  await page.goto('/prove?camera=slipway&detection=quay-edge')
  await expect(page.getByRole('region', { name: 'Newly passed' })).toContainText(
    'From Water to Land'
  )
})

test('a custom check: draws who walks where, keeps wrong input with its reason; deletes and restores', async ({
  page
}) => {
  await page.goto('/prove?camera=slipway&detection=quay-edge')
  await page.getByRole('button', { name: 'Add check' }).click()
  await panel(page).getByLabel('Name').fill('A dog on the quay')
  await panel(page).getByRole('combobox', { name: /^Who/ }).click()
  await page.getByTitle('Dog').click()
  // Two places more on its way, clicked on the ground.
  const box = (await panel(page).locator('canvas').boundingBox())!
  await page.mouse.click(box.x + box.width * 0.5, box.y + box.height * 0.75)
  await expect(panel(page).locator('.scene-preview circle')).toHaveCount(3)
  await panel(page).getByLabel('Not before').fill('9')
  await panel(page).getByLabel('Not after').fill('2')
  await panel(page).getByRole('button', { name: 'Save' }).click()
  await expect(panel(page).getByRole('alert')).toContainText('to must not be before from')
  await panel(page).getByLabel('Expected').click()
  await page.getByTitle('Must not trigger').click()
  await panel(page).getByRole('button', { name: 'Save' }).click()
  await expect(panel(page).getByRole('heading', { name: 'A dog on the quay' })).toBeVisible()
  await panel(page).getByRole('button', { name: /Run$/ }).click()
  await expect(panel(page)).toContainText('No trigger, as expected', { timeout: 30_000 })
  await panel(page).getByRole('button', { name: 'Delete A dog on the quay' }).click()
  await expect(page.getByRole('button', { name: /A dog on the quay/ })).toHaveCount(0)
  await page.getByRole('button', { name: /(^|\s)Undo$/ }).click()
  await expect(page.getByRole('button', { name: /passed A dog on the quay/ })).toBeVisible()
})

test('opens a walk on the Bench as a clip at the decisive moment', async ({ page }) => {
  await page.goto('/prove?camera=slipway&detection=quay-edge&check=quay-edge.direction.leftToRight')
  await panel(page).getByRole('button', { name: 'Open on the Bench' }).click()
  await expect(page).toHaveURL(/\/bench\/slipway\?clip=[\w-]+&detection=quay-edge&frame=\d+/, {
    timeout: 90_000
  })
  await expect(page.getByRole('button', { name: /^Trigger of Quay edge,/ })).toHaveCount(1, {
    timeout: 30_000
  })
})
