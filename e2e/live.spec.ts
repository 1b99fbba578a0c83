import { expect, test } from './test.ts'

test('replay as live: each trigger sends a mail with its picture to the mailbox', async ({
  page
}) => {
  await page.goto('/bench/slipway')
  await expect(page.locator('.target-lane')).toHaveCount(7, { timeout: 60_000 })
  await page.locator('.rail-item button').first().click()
  const actions = page.getByRole('button', { name: /^Actions: / })
  await expect(actions).toHaveText('Actions: Strobe on the mast, Voice on the mast and 3 more')
  await actions.click()
  for (const name of ['Strobe on the mast', 'Voice on the mast', 'Recording'])
    await page.getByRole('checkbox', { name }).uncheck()
  await page.keyboard.press('Escape')
  await expect(actions).toHaveText('Actions: E-mail to duty and Pop-up')
  await expect(page.getByRole('status')).toHaveText('All changes saved')

  await page.getByRole('button', { name: 'Replay as live…' }).click()
  await page.getByText('As fast as possible').click()
  const run = page.getByRole('region', { name: 'Replay as live' })
  await expect(run.getByRole('heading')).toHaveText('Finished', { timeout: 30_000 })
  await expect(run.getByText('E-mail to duty: delivered')).toHaveCount(2)

  await run.getByRole('link', { name: 'Open mailbox' }).click()
  await expect(page).toHaveURL(/\/mailbox$/)
  // The camera's own scene goes on meanwhile, and sends mails as well: those do not know who it was.
  await page
    .getByRole('link', { name: /Person crossed Quay edge, Water → Land/ })
    .first()
    .click()
  const message = page.getByRole('article', { name: 'Message' })
  await expect(message).toContainText('Camera: Slipway')
  await expect(message).toContainText('Direction: Water → Land')
  // Of two triggers that the run sent at once, either mail may come last.
  await expect(message).toContainText(
    /Time at the site: 24 Nov 2026, 08:12:(29|39) \(Europe\/London\)/
  )
  const picture = message.getByRole('img', { name: 'Picture of the trigger' })
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(640)
})
