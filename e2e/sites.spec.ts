import { readFileSync } from 'node:fs'
import { expect, test } from './test.ts'

test.describe.configure({ mode: 'serial' })

test('a second site from a template has its own cameras, schedules and address', async ({
  page
}) => {
  await page.goto('/')
  await expect(page).toHaveURL(/\/s\/skerrow\/site$/)
  await page.getByRole('button', { name: /Skerrow Landing. Go to another site/ }).click()
  await page.getByRole('link', { name: 'All sites…' }).click()
  await page.getByRole('button', { name: 'Add site…' }).click()
  await page.getByLabel('Name').fill('Mole Head')
  await page.getByRole('combobox', { name: 'Start from' }).click()
  await page.getByTitle('Skerrow Landing').last().click()
  await page.getByRole('dialog').getByRole('button', { name: 'Add site' }).click()
  await expect(page.getByRole('heading', { name: 'Set up your site' })).toBeVisible()
  await expect(page).toHaveURL(/\/s\/site-\w+/)
  const home = /\/s\/[^/]+/.exec(page.url())![0]

  await page.getByRole('link', { name: 'Arming' }).click()
  await expect(page).toHaveURL(new RegExp(`${home}/arming`))
  await expect(page.getByRole('region', { name: 'Schedules' })).toContainText('Nights')
  await page.getByRole('link', { name: 'Watch', exact: true }).click()
  await expect(page.getByRole('main')).not.toContainText('Slipway')
  // A reload stays at the site, and an address that names none leads to the one shown last.
  await page.reload()
  await expect(page.getByRole('button', { name: /Mole Head. Go to another site/ })).toBeVisible()
  await page.goto('/actions')
  await expect(page).toHaveURL(new RegExp(`${home}/actions`))
})

test('what can be undone at one site is not undone at another', async ({ page }) => {
  const undo = page.getByRole('button', { name: 'Undo', exact: true })
  await page.goto('/s/skerrow/arming')
  await page.getByRole('button', { name: 'Add schedule' }).click()
  await expect(undo).toBeEnabled()
  await expect(page.getByText('All changes saved')).toBeVisible()
  await page.goto('/?sites')
  await page.getByRole('link', { name: /Mole Head/ }).click()
  await page.getByRole('link', { name: 'Arming' }).click()
  await expect(page.getByRole('region', { name: 'Schedules' })).toContainText('Nights')
  await expect(undo).toBeDisabled()
  await page.goto('/s/skerrow/arming')
  await undo.click()
  await expect(page.getByText('All changes saved')).toBeVisible()
})

test('goes to another site and back, and takes back a deletion', async ({ page }) => {
  await page.goto('/?sites')
  await page.getByRole('link', { name: /Mole Head/ }).click()
  await page.getByRole('button', { name: /Mole Head. Go to another site/ }).click()
  await page.getByRole('link', { name: 'Skerrow Landing' }).click()
  await expect(page.getByRole('heading', { name: 'Skerrow Landing' })).toBeVisible()
  await page.goto('/?sites')
  await page.getByRole('button', { name: 'Delete Mole Head' }).click()
  await page.getByRole('tooltip').getByRole('button', { name: 'Delete' }).click()
  await expect(page.getByRole('link', { name: /Mole Head/ })).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('link', { name: /Mole Head/ })).toBeVisible()
  await page.getByRole('button', { name: 'Delete Mole Head' }).click()
  await page.getByRole('tooltip').getByRole('button', { name: 'Delete' }).click()
  await expect(page.getByRole('link', { name: /Mole Head/ })).toHaveCount(0)
  await page.goto('/s/nowhere/bench')
  await expect(page.getByRole('heading', { name: 'No site here' })).toBeVisible()
  await page.getByRole('link', { name: 'Open your sites' }).click()
  await expect(page.getByRole('heading', { name: 'Sites' })).toBeVisible()
})

test('exports a site and imports it as another one, after a list of what it brings', async ({
  page
}) => {
  await page.goto('/s/skerrow/site')
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Export site' }).click()
  const file = await (await download).path()
  await page.goto('/?sites')
  await page.locator('input[type=file]').setInputFiles({
    name: 'Skerrow-Landing.zip',
    mimeType: 'application/zip',
    buffer: readFileSync(file)
  })
  const dialog = page.getByRole('dialog', { name: 'Import Skerrow Landing' })
  await expect(dialog.getByRole('list', { name: 'What will change' })).toContainText(
    'Detection Quay edge on Slipway added'
  )
  // Into the site itself nothing would change.
  await dialog.getByRole('combobox', { name: 'Into' }).click()
  await page.getByTitle('Skerrow Landing').last().click()
  await expect(dialog).toContainText('Nothing would change')
  await dialog.getByRole('combobox', { name: 'Into' }).click()
  await page.getByTitle('A new site').last().click()
  await dialog.getByRole('button', { name: 'Import' }).click()
  await expect(page).toHaveURL(/\/s\/site-\w+/)
  await expect(page.getByRole('heading', { name: 'Skerrow Landing' })).toBeVisible()
  const id = /\/s\/([^/]+)/.exec(page.url())![1]!
  await page.request.delete(`/api/sites/${id}`)
})
