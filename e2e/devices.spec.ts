import { expect, test } from '@playwright/test'
import { asDelivered } from './site.ts'

test.beforeAll(({ baseURL }) => asDelivered(baseURL, 'slipway'))

test('devices: what each can do, what differs, sent on command; a first account; a device that is not there', async ({ page }) => {
  await page.goto('/devices')
  await page.getByRole('button', { name: /^Slipway camera/ }).click()
  const sheet = page.getByRole('article', { name: 'Slipway camera' })
  await expect(sheet).toContainText('Halden Optics HO-40, firmware 2.4.1')
  await expect(sheet).toContainText('Line crossing (up to 4, sensitivity in 100 steps)')
  await expect(sheet.getByRole('listitem').filter({ hasText: 'Quay edge' })).toContainText('is not on the device yet')
  await sheet.getByRole('button', { name: 'Send 1 change' }).click()
  await expect(sheet.getByRole('status')).toContainText('✓ Quay edge created')
  await expect(sheet.getByRole('listitem').filter({ hasText: 'Quay edge' }).first()).toContainText('as in the plan')
  await expect(sheet.getByRole('button', { name: 'Nothing to send' })).toBeDisabled()

  await page.getByRole('button', { name: /^Quay path camera/ }).click()
  await expect(page.getByRole('article')).toContainText('sensitivity 50: the nearest is 34 (step 2 of 1 to 4)')
  await page.getByRole('button', { name: /^Waiting room camera/ }).click()
  await expect(page.getByRole('article')).toContainText(/its clock is off by 9\d s \(ahead\)/)

  await page.getByRole('button', { name: /^Workshop yard camera/ }).click()
  const account = page.getByRole('region', { name: 'Account' })
  await account.getByLabel('Password').fill('short')
  await account.getByRole('button', { name: 'Make the account' }).click()
  await expect(page.getByRole('alert')).toContainText('the password must have at least 8 characters')
  await account.getByLabel('Password').fill('long-enough')
  await account.getByRole('button', { name: 'Make the account' }).click()
  await expect(page.getByRole('article')).toContainText('Tamper (up to 1')

  await page.getByRole('button', { name: 'Add a device' }).click()
  const dialog = page.getByRole('dialog', { name: 'Add a device' })
  await dialog.getByLabel('Name', { exact: true }).fill('Shed')
  await dialog.getByLabel('Address').fill('192.168.1.20')
  await dialog.getByRole('button', { name: 'Add and read it' }).click()
  await expect(dialog.getByRole('alert')).toContainText('is no address; such as http://192.168.1.20')
  await dialog.getByLabel('Address').fill('http://127.0.0.1:9')
  await dialog.getByRole('button', { name: 'Add and read it' }).click()
  await expect(page.getByRole('article', { name: 'Shed' })).toContainText('cannot be reached')
})
