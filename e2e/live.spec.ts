import { expect, test } from '@playwright/test'
import { asDelivered } from './site.ts'

test.beforeAll(({ baseURL }) => asDelivered(baseURL, 'slipway'))

test('run as live: each trigger sends a mail, which the mailbox shows with its picture', async ({ page }) => {
  await page.goto('/bench/slipway')
  await expect(page.locator('.target-lane')).toHaveCount(7, { timeout: 60_000 })
  await page.locator('.rail-item button').first().click()
  const email = page.getByRole('button', { name: /^E-mail: / })
  await email.click()
  await page.getByLabel('Recipient').fill('nobody at all')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('must be an e-mail address such as duty@example.org')
  await page.getByLabel('Recipient').fill('harbour@skerrow.example')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(email).toHaveText(/^e.mail to harbour@skerrow.example$/)
  await expect(page.getByRole('status')).toHaveText('All changes kept')

  await page.getByRole('button', { name: 'Run as live' }).click()
  await page.getByText('As fast as it goes').click()
  const run = page.getByRole('region', { name: 'Run as live' })
  await expect(run.getByRole('heading')).toHaveText('Finished', { timeout: 30_000 })
  await expect(run.getByText('to harbour@skerrow.example: sent')).toHaveCount(2)

  await run.getByRole('link', { name: 'Open the mailbox' }).click()
  await expect(page).toHaveURL(/\/mailbox$/)
  await page.getByRole('link', { name: /crossed/ }).first().click()
  const message = page.getByRole('article', { name: 'Message' })
  await expect(message).toContainText('Camera: Slipway')
  await expect(message).toContainText('Direction: Water → Land')
  await expect(message).toContainText('Time at the site: Tue 24 Nov 2026, 08:12:39 GMT')
  const picture = message.getByRole('img', { name: 'The moment of the trigger' })
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(640)
})
