import { serious } from './axe.ts'
import { expect, test, type Page } from './test.ts'

async function openTrigger(page: Page): Promise<void> {
  await page.goto('/bench/slipway')
  await page.locator('.flag').last().click({ timeout: 60_000 })
  await expect(page.getByRole('region', { name: 'Conditions' })).toBeVisible()
}

for (const theme of ['day', 'night'])
  test(`axe finds nothing serious on the places, ${theme} theme`, async ({ page }) => {
    await openTrigger(page)
    if (theme === 'night') await page.getByRole('button', { name: 'Switch to night theme' }).click()
    expect(await serious(page)).toEqual([])
    await page.keyboard.press('Control+k')
    await page.getByRole('combobox', { name: 'Search the site' }).fill('quay')
    expect(await serious(page)).toEqual([])
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: /^Overlap: / }).click()
    expect(await serious(page)).toEqual([])
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Suggest a change' }).click()
    await expect(
      page.getByRole('region', { name: 'Suggested changes' }).getByRole('listitem').first()
    ).toBeVisible()
    expect(await serious(page)).toEqual([])
    await page.getByRole('button', { name: 'History' }).click()
    await page.getByRole('region', { name: 'Edits' }).getByRole('button').first().click()
    expect(await serious(page)).toEqual([])
    await page.goto('/bench/slipway')
    await page.getByRole('button', { name: /(^|\s)Calibrate$/ }).click({ timeout: 60_000 })
    await page.getByRole('button', { name: 'Use the people in this clip' }).click()
    expect(await serious(page)).toEqual([])
    // The night theme has the same pages in other colours: those with colours of their own.
    const places = [
      '/site',
      '/mailbox',
      '/arming/nights',
      '/actions',
      '/actions?endpoint=voice-mast',
      '/actions?camera=slipway&detection=quay-edge',
      '/actions/alarms',
      '/actions/mail',
      '/devices',
      '/prove?camera=slipway&detection=quay-edge',
      '/watch',
      '/watch/search',
      '/handover',
      '/bench/vehicle-lanes'
    ]
    const coloured = [
      '/site',
      '/arming/nights',
      '/actions',
      '/prove?camera=slipway&detection=quay-edge'
    ]
    for (const place of theme === 'day' ? places : coloured) {
      await page.goto(place)
      await expect(page.getByRole('main')).toBeVisible()
      expect({ place, found: await serious(page) }).toEqual({ place, found: [] })
    }
  })

test('keeps the selection in the address, for the back button and another window', async ({
  page,
  context
}) => {
  await page.goto('/site')
  await page.getByRole('link', { name: /^Slipway \d+ detection/ }).click()
  await page.locator('.flag').last().click({ timeout: 60_000 })
  const title = page.getByRole('region', { name: 'Conditions' }).getByRole('heading')
  const said = await title.textContent()
  const other = await context.newPage()
  await other.goto(page.url())
  await expect(other.getByRole('region', { name: 'Conditions' }).getByRole('heading')).toHaveText(
    said!
  )
  await expect(other.getByLabel('Current moment')).toHaveText(
    (await page.getByLabel('Current moment').textContent())!
  )
  await page.goBack()
  await expect(page).toHaveURL(/\/site$/)
  await page.goForward()
  await expect(title).toHaveText(said!)
})

test('lists the keys on request, and remembers the theme', async ({ page }) => {
  await openTrigger(page)
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('Draw a line')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await page.getByRole('button', { name: 'Switch to night theme' }).click()
  await page.reload()
  await expect(page.getByRole('button', { name: 'Switch to day theme' })).toBeVisible()
})

test('steps through near misses by key, each with its reason', async ({ page }) => {
  await page.goto('/bench/slipway')
  await page.locator('.rail-item button').first().click({ timeout: 60_000 })
  await expect(page.locator('.near-miss').first()).toBeVisible()
  await page.keyboard.press('n')
  await expect(page.getByRole('region', { name: 'Conditions' })).toContainText(
    'Class not met: animal'
  )
})
