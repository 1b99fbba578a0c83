import { wordsOf } from '../core/messages/words.ts'
import { expect, test, type Page } from './test.ts'
import type { ProvingView } from '../core/proving/views.ts'
import type { ReadinessView } from '../core/readiness/index.ts'
import { draw } from './onBench.ts'

const YARD = 'workshop-yard'
const place = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name, exact: true }).click()
const card = (page: Page) => page.getByRole('link', { name: /Workshop yard \d+ detection/ })
const missing = (page: Page) => page.getByRole('region', { name: 'Issues' })
const showAll = async (page: Page): Promise<void> => {
  await expect(missing(page)).toBeVisible()
  const more = missing(page).getByRole('button', { name: /^Show \d+ more$/ })
  if (await more.isVisible()) await more.click()
}
/** What is still said of the yard, worst first. */
const said = async (page: Page) =>
  (
    (await (await page.request.get('/api/sites/skerrow/readiness')).json()) as ReadinessView
  ).findings.filter((f) => f.camera === YARD || f.device === 'cam-yard' || f.shared?.includes(YARD))

test('the whole thread: a new device, drawn, armed, linked, sent, proven, walked live, its alarm acknowledged with evidence', async ({
  page
}) => {
  test.setTimeout(300_000)

  // The site says that a device has no account yet, and leads to it.
  await page.goto('/site')
  await showAll(page)
  const fresh = missing(page)
    .getByRole('listitem')
    .filter({ hasText: 'Workshop yard camera has no account yet' })
  // Begun again after a failure, it has its account already.
  if ((await said(page)).some((f) => f.code === 'default-password')) {
    await fresh.getByRole('link', { name: 'Workshop yard camera' }).click()
    const yard = page.getByRole('article', { name: 'Workshop yard camera' })
    const account = yard.getByRole('region', { name: 'Account' })
    await account.getByLabel('Password').fill('short')
    await account.getByRole('button', { name: 'Create account' }).click()
    await expect(page.getByRole('alert')).toContainText('must have at least 8 characters')
    await account.getByLabel('Password').fill('long-enough')
    await account.getByRole('button', { name: 'Create account' }).click()
    await expect(yard).toContainText('Tamper (up to 1')
  }

  // Drawn, on its own picture.
  await place(page, 'Site')
  await card(page).click()
  // Its clip is analysed beside all this after the start.
  await expect(page.locator('.stage canvas').first()).toBeVisible({ timeout: 120_000 })
  await draw(page, 'z', [0.3, 0.5], [0.7, 0.5], [0.8, 0.9], [0.2, 0.9])
  await expect(page.getByRole('list', { name: 'Detections' })).toContainText(
    'A person is in Zone 1 for 3 s'
  )
  await expect(page.getByRole('status')).toHaveText('All changes saved')

  // Its actions: until then the site lists that it has none.
  await place(page, 'Actions')
  for (const name of ['Zone 1', 'Yard camera care', 'Yard picture lost'])
    for (const endpoint of [
      'E-mail to duty',
      'Northwatch station',
      ...(name === 'Zone 1' ? ['Recording'] : [])
    ]) {
      const crossing = page.getByRole('button', { name: new RegExp(`^${name}, ${endpoint}:`) })
      if (!/: linked/.test((await crossing.getAttribute('aria-label')) ?? ''))
        await crossing.click()
    }
  await expect(page.locator('.sync-status')).toHaveText('All changes saved')

  // From here on the site says what is missing, and one click does it: outputs are tried, changes are sent.
  await place(page, 'Site')
  for (let left = 12; left > 0; left--) {
    const next = (await said(page)).find(
      (f) => f.severity !== 'hint' && f.step !== 'proven' && f.fix && f.fix.does !== 'go'
    )
    if (!next) break
    await showAll(page)
    const line = missing(page)
      .getByRole('listitem')
      .filter({ hasText: wordsOf(next.sentence) })
    await line
      .getByRole('button', { name: wordsOf(next.fix!.words) })
      .first()
      .click()
    await expect(line).toHaveCount(0, { timeout: 90_000 })
  }
  for (const step of ['Drawn', 'Scheduled', 'Linked', 'On device'])
    await expect(card(page)).toContainText(`${step} done`)
  await expect(card(page)).not.toContainText('Proven done')

  // The last notch: each detection is proven from its own settings.
  for (let left = 4; left > 0; left--) {
    const next = (await said(page)).find((f) => f.step === 'proven' && f.severity !== 'hint')
    if (!next) break
    await page.goto(`/prove?camera=${YARD}&detection=${next.detection}`)
    const keep = page.getByRole('button', { name: /^(Add them|Add all \d+)$/ }).last()
    await expect(
      keep.or(page.getByRole('button', { name: 'Run these', disabled: false })).first()
    ).toBeVisible({ timeout: 150_000 })
    if (await keep.isVisible()) await keep.click()
    await page.getByRole('button', { name: 'Run these' }).click()
    await expect
      .poll(
        async () =>
          (await said(page)).some((f) => f.detection === next.detection && f.code === next.code),
        { timeout: 90_000 }
      )
      .toBe(false)
  }
  await place(page, 'Site')
  for (const step of ['Drawn', 'Scheduled', 'Linked', 'On device', 'Proven'])
    await expect(card(page)).toContainText(`${step} done`)

  // Walked in front of the live camera: its own trigger, and what follows, ticked off as it arrives.
  const { checks } = (await (
    await page.request.get('/api/sites/skerrow/proving')
  ).json()) as ProvingView
  const { check } = checks.find(
    (c) => c.camera === YARD && c.check.id.startsWith('zone-') && c.check.about === 'passes'
  )!
  await page.goto(`/prove?camera=${YARD}&detection=${check.detection}&check=${check.id}`)
  await page.getByRole('button', { name: 'Walk live' }).last().click()
  await page.getByRole('button', { name: /Walk$/ }).click()
  const arrives = page.getByRole('region', { name: 'Results' })
  await expect(page.locator('.walk-verdict')).toContainText('Passed', { timeout: 90_000 })
  await expect(page.locator('.walk-verdict')).toContainText('Result saved with this check')
  await expect(
    arrives.getByRole('listitem').filter({ hasText: 'Trigger of Zone 1' })
  ).toContainText(/at \d+\.\d s of the walk/)
  await expect(arrives.getByRole('listitem').filter({ hasText: 'E-mail to duty' })).toContainText(
    /\+\d+\.\d s/
  )
  await expect(
    arrives.getByRole('listitem').filter({ hasText: 'Northwatch station' })
  ).toContainText('confirmed')
  await expect(page.getByRole('region', { name: 'Conditions' })).toContainText('all conditions met')

  // And the operator's side: it arrived there as well, with its evidence.
  await place(page, 'Watch')
  await page.locator('.alarm-line.waiting').filter({ hasText: 'Zone 1' }).first().click()
  const desk = page.getByRole('region', { name: 'Alarm Zone 1' })
  await expect(desk).toBeVisible()
  await expect(
    desk.getByRole('region', { name: 'Evidence' }).getByRole('img').first()
  ).toHaveJSProperty('complete', true)
  await expect(desk.getByRole('region', { name: 'Conditions' })).toContainText('all conditions met')
  // What a device recorded of it is read from there once it has ended: 5 s before and 15 s after.
  const film = desk.getByLabel('Recording, recording.mp4').first()
  await expect(film).toBeVisible({ timeout: 150_000 })
  await expect.poll(() => film.evaluate((v: HTMLVideoElement) => Math.round(v.duration))).toBe(20)
  await desk.getByRole('button', { name: 'Acknowledge' }).click()
  await expect(desk).toContainText('Isla Brae acknowledged')
})
