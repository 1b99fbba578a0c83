import { expect, type Page } from './test.ts'

/** What tests do on the Bench again and again. */

/** Opens the Slipway's Bench with its clip analysed. */
export async function openBench(page: Page): Promise<void> {
  await page.goto('/bench/slipway')
  await expect(page.locator('.target-lane')).toHaveCount(7, { timeout: 60_000 })
}

/** A place of the picture on the page. */
export async function at(page: Page, x: number, y: number): Promise<[number, number]> {
  const box = (await page.locator('.stage canvas').first().boundingBox())!
  return [box.x + x * box.width, box.y + y * box.height]
}

/** Draws a line (`l`), a zone (`z`) or an ignore area (`i`) by the pointer and finishes it with Enter. */
export async function draw(
  page: Page,
  key: 'l' | 'z' | 'i',
  ...points: [number, number][]
): Promise<void> {
  await page.keyboard.press(key)
  for (const [x, y] of points) {
    await page.mouse.click(...(await at(page, x, y)))
    await page.waitForTimeout(350) // two quick clicks would be a double click
  }
  await page.keyboard.press('Enter')
}

/** Takes hold of a place of the picture and lets go at another. */
export async function drag(
  page: Page,
  from: [number, number],
  ...to: [number, number][]
): Promise<void> {
  await page.mouse.move(...(await at(page, ...from)))
  await painted(page)
  await page.mouse.down()
  for (const place of to) await page.mouse.move(...(await at(page, ...place)), { steps: 4 })
  await page.mouse.up()
}

/** Waits until the picture has been painted with what was last done: what is not painted cannot be hit. */
export const painted = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        requestAnimationFrame(() =>
          requestAnimationFrame(() => requestAnimationFrame(() => resolve()))
        )
      })
  )

export const flags = (page: Page, name: string) =>
  page.getByRole('button', { name: new RegExp(`^Trigger of ${name},`) })
export const kept = (page: Page) => expect(page.getByRole('status')).toHaveText('All changes saved')
export const chip = (page: Page, what: string) =>
  page.getByRole('button', { name: new RegExp(`^${what}: `) })

/** Adds a condition that the sentence leaves out as it is at its default; its editor is open then. */
export async function addCondition(page: Page, what: string): Promise<void> {
  await page.getByRole('button', { name: 'Add condition' }).click()
  await page.getByRole('menuitem', { name: what }).click()
}
