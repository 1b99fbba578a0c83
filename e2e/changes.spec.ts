import { expect, test } from './test.ts'
import { chip, draw, flags, kept, openBench } from './onBench.ts'

test.describe.configure({ mode: 'serial' })
test('what would have to change: one proposed change lets a target through, another keeps it out', async ({
  page
}) => {
  await openBench(page)
  await draw(page, 'z', [0.4, 0.5], [0.65, 0.5], [0.75, 0.75], [0.3, 0.75])
  await chip(page, 'Dwell').click()
  await page.getByRole('spinbutton', { name: /^Dwell/ }).fill('30')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(flags(page, 'Zone 1')).toHaveCount(0)
  // The near misses, the nearest first: each lacks more of its dwell than the one before.
  await page.keyboard.press('Escape')
  await page
    .getByRole('list', { name: 'Detections' })
    .getByRole('button', { name: /Zone 1/ })
    .first()
    .click()
  const misses = page.getByRole('region', { name: 'Near misses' }).getByRole('listitem')
  await expect(misses.first()).toContainText(/dwell: \d+% short/)
  const short = (await misses.allTextContents()).map((text) =>
    Number(/(\d+)% short/.exec(text)?.[1] ?? 100)
  )
  expect(short).toEqual([...short].sort((a, b) => a - b))
  await misses.first().getByRole('button').click()
  await page.getByRole('button', { name: 'Suggest a change' }).click()
  const changes = page.getByRole('region', { name: 'Suggested changes' })
  await expect(changes.getByRole('listitem').first()).toContainText(/Dwell 30\ss → [\d.]+\ss/)
  await expect(changes.getByRole('listitem').first()).toContainText(
    /Nothing else changes on this clip\.|Also triggers/
  )
  await changes
    .getByRole('button', { name: /(^|\s)Apply$/ })
    .first()
    .click()
  await expect(flags(page, 'Zone 1').first()).toBeVisible()
  // Asked again of one that triggers: how to keep it out.
  await flags(page, 'Zone 1').first().click()
  if (await page.getByRole('button', { name: 'Suggest a change' }).isVisible())
    await page.getByRole('button', { name: 'Suggest a change' }).click()
  await expect(changes.getByRole('heading')).toHaveText('To stop it, one of these')
  const count = await flags(page, 'Zone 1').count()
  await changes
    .getByRole('button', { name: /(^|\s)Apply$/ })
    .first()
    .click()
  await expect.poll(() => flags(page, 'Zone 1').count()).toBeLessThan(count)
  await page.keyboard.press('Control+z')
  await expect(flags(page, 'Zone 1')).toHaveCount(count)
  await kept(page)
})

test('shows counts on all clips, and what a change does on the others', async ({ page }) => {
  await page.goto('/bench/waiting-room')
  await expect(page.locator('.detection-lane').first()).toBeVisible({ timeout: 120_000 })
  await expect
    .poll(
      async () =>
        (
          (await (await page.request.get('/api/sites/skerrow/cameras/waiting-room')).json()) as {
            clips: { state: string }[]
          }
        ).clips.every((c) => c.state === 'ready'),
      { timeout: 100_000 }
    )
    .toBe(true)
  // The clip on the Bench is read only once the dialog is open: what is counted in it must not be
  // asked before the worker has been given it.
  let letThrough = (): void => {}
  const opened = new Promise<void>((resolve) => (letThrough = resolve))
  await page.route(/\/clips\/[^/]+\/measures$/, async (route) => {
    await opened
    await route.continue()
  })
  await page.reload()
  await page.getByRole('button', { name: 'All clips…' }).click()
  const table = page.getByRole('dialog').getByRole('table')
  await expect(table).toContainText('…')
  letThrough()
  await expect(table.getByRole('row')).toHaveCount(4) // heading, two clips, the sum
  await expect(table).not.toContainText('…')
  const numbers = await table
    .getByRole('row')
    .evaluateAll((rows) =>
      rows
        .slice(1)
        .map((row) => [...row.querySelectorAll('td')].map((td) => Number(td.textContent)))
    )
  numbers[2]!.forEach((sum, i) => expect(sum).toBe(numbers[0]![i]! + numbers[1]![i]!))
  expect(numbers[2]!.some((n) => n > 0)).toBe(true)
  const clips = table.locator('tbody tr:not(.chosen)').getByRole('button')
  const name = await clips.textContent()
  await clips.click()
  await expect(page.locator('.clip-select')).toContainText(name!)
})

test('the timeline: zoom, loop, next trigger by key, dwell in progress', async ({ page }) => {
  await openBench(page)
  await expect(page.locator('.timed').first()).toBeAttached()
  await page.keyboard.press('t')
  await expect(page.getByLabel('Current moment')).not.toHaveText('00:00.0')
  const first = await page.getByLabel('Current moment').textContent()
  await page.keyboard.press('t')
  await expect(page.getByLabel('Current moment')).not.toHaveText(first!)
  await page.keyboard.press('Shift+T')
  await expect(page.getByLabel('Current moment')).toHaveText(first!)

  const lengthOf = async (): Promise<number> =>
    (await page.locator('.span').first().boundingBox())!.width
  const before = await lengthOf()
  await page.getByRole('button', { name: 'Zoom in' }).click()
  await expect.poll(lengthOf).toBeGreaterThan(1.5 * before)
  await page.getByRole('button', { name: 'whole clip' }).click()
  await expect.poll(lengthOf).toBeCloseTo(before, 0)

  const scale = (await page.locator('.scale').boundingBox())!
  await page.keyboard.down('Shift')
  await page.mouse.move(scale.x + scale.width * 0.2, scale.y + 8)
  await page.mouse.down()
  await page.mouse.move(scale.x + scale.width * 0.22, scale.y + 8, { steps: 3 })
  await page.mouse.up()
  await page.keyboard.up('Shift')
  const loop = page.getByRole('button', { name: /^Looping/ })
  const [, from, to] = /([\d.]+) to ([\d.]+) s/
    .exec((await loop.getAttribute('aria-label'))!)!
    .map(Number) as [number, number, number]
  await page.getByRole('application').focus()
  await page.keyboard.press(' ')
  const seen: number[] = []
  for (let i = 0; i < 20; i++) {
    await page.waitForTimeout(150)
    seen.push(
      Number(/:([\d.]+)/.exec((await page.getByLabel('Current moment').textContent())!)![1])
    )
  }
  await page.keyboard.press(' ')
  expect(seen.every((time) => time >= from - 0.2 && time <= to + 0.3)).toBe(true)
  // It went back at least once.
  expect(seen.some((time, i) => i > 0 && time < seen[i - 1]!)).toBe(true)
  await loop.click()
  await expect(loop).toHaveCount(0)
})
