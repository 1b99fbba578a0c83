import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test, type Page } from './test.ts'

const card = (page: Page, name: string) =>
  page.getByRole('listitem').filter({ has: page.getByRole('heading', { name, exact: true }) })

test.describe.configure({ mode: 'serial' })

test('a record is made with open issues, signed, and downloaded whole', async ({ page }) => {
  test.setTimeout(180_000)
  await page.goto('/s/skerrow/handover')
  await expect(page.getByText('No record yet.')).toBeVisible()
  // One issue is accepted on purpose, with the reason that the client reads.
  const obstacles = page.getByRole('region', { name: /issues to settle first/ })
  const before = await obstacles.getByRole('listitem').count()
  const first = obstacles.getByRole('listitem').filter({ hasText: 'no account yet' })
  await first.getByRole('button', { name: 'Accept…' }).click()
  const accept = page.getByRole('dialog', { name: 'Accept on purpose' })
  await expect(accept.getByRole('button', { name: 'Accept on purpose' })).toBeDisabled()
  await accept.getByLabel('Reason, as the client will read it').fill('The yard comes next year.')
  await accept.getByRole('button', { name: 'Accept on purpose' }).click()
  await expect(accept).toBeHidden()
  await expect(page.getByText('The yard comes next year.')).toBeVisible()
  await expect(
    page.getByRole('region', { name: `${before - 1} issues to settle first` })
  ).toBeVisible()

  await page.getByRole('button', { name: 'Make record…' }).click()
  const make = page.getByRole('dialog', { name: 'Make a record' })
  await make.getByLabel('Client').fill('Orcadian Ferries')
  await make.getByLabel('Installer').fill('Brae Security')
  await make.getByLabel('Remarks and recommendations').fill('Service once a year.')
  await make.getByLabel('Run checks that are out of date').uncheck()
  const go = make.getByRole('button', { name: 'Make a record' })
  await expect(go).toBeDisabled()
  await make.getByLabel(/^Make it with \d+ open issues; its first page says so$/).check()
  await go.click()
  await expect(page.getByText('Record 1 made')).toBeVisible({ timeout: 120_000 })
  await expect(card(page, 'Record 1')).toContainText(`${before - 1} open issues`)
  await expect(page.getByText('Nothing has changed since this record.')).toBeVisible()

  await card(page, 'Record 1').getByRole('button', { name: 'Sign…' }).click()
  const sign = page.getByRole('dialog', { name: 'Sign record 1' })
  await sign.getByLabel('Name').fill('Ina Marwick')
  await sign.getByRole('button', { name: 'Sign record 1' }).click()
  await expect(sign.getByText('Draw the signature, or choose')).toBeVisible()
  const pad = (await sign.getByRole('img', { name: 'Draw the signature' }).boundingBox())!
  await page.mouse.move(pad.x + 40, pad.y + 60)
  await page.mouse.down()
  for (let i = 1; i <= 8; i++) await page.mouse.move(pad.x + 40 + 30 * i, pad.y + 60 - (i % 2) * 30)
  await page.mouse.up()
  await sign.getByRole('button', { name: 'Sign record 1' }).click()
  await expect(sign).toBeHidden()
  await expect(card(page, 'Record 1')).toContainText('Ina Marwick')

  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-handover-'))
  try {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      card(page, 'Record 1').getByRole('link', { name: 'Download ZIP' }).click()
    ])
    const file = join(folder, 'record.zip')
    await download.saveAs(file)
    expect(
      execFileSync(process.execPath, ['scripts/run.mjs', 'server/handover/verifyCli.ts', file], {
        encoding: 'utf8'
      })
    ).toMatch(/^Record 1 holds: /)
    execFileSync('unzip', ['-q', file, 'record.pdf', '-d', folder])
    const text = execFileSync('pdftotext', [join(folder, 'record.pdf'), '-'], { encoding: 'utf8' })
    for (const words of [
      'Orcadian Ferries',
      'The yard comes next year.',
      'Ina Marwick',
      'Quay edge'
    ])
      expect(text).toContain(words)
  } finally {
    rmSync(folder, { recursive: true })
  }
})

test('what is changed afterwards is listed, setting by setting', async ({ page }) => {
  await page.goto('/s/skerrow/bench/slipway?detection=quay-edge')
  await page.getByRole('button', { name: /^Direction and sides: / }).click()
  await page.getByText('Either direction').click()
  await page.keyboard.press('Escape')
  await expect(page.getByText('Saved')).toBeVisible()
  await page.goto('/s/skerrow/handover')
  const since = page.getByRole('region', { name: 'Since the handover' })
  await expect(since.getByRole('listitem')).toHaveCount(1)
  await expect(since.getByRole('listitem')).toContainText(
    'Slipway, Quay edgedirection: from left to right → either direction'
  )
})

test('a service visit is started, and ends with a record of its own', async ({ page }) => {
  test.setTimeout(120_000)
  await page.goto('/s/skerrow/handover')
  const visit = page.getByRole('region', { name: 'Service visit' })
  await visit.getByRole('button', { name: 'Start a service visit' }).click()
  await expect(visit.getByText('compared with record 1')).toBeVisible()
  await expect(visit.getByText(/^0 of \d+ tested$/)).toBeVisible()
  await visit.getByRole('button', { name: 'Finish visit…' }).click()
  const dialog = page.getByRole('dialog', { name: 'Make the service record' })
  await expect(dialog.getByLabel('Client')).toHaveValue('Orcadian Ferries')
  await dialog.getByRole('button', { name: 'Make the service record' }).click()
  await expect(card(page, 'Service record 2')).toBeVisible({ timeout: 90_000 })
  await expect(visit.getByRole('button', { name: 'Start a service visit' })).toBeVisible()
})

test('an operator reads records, and is offered nothing else', async ({ browser, baseURL }) => {
  const context = await browser.newContext({
    baseURL: baseURL!,
    storageState: { cookies: [], origins: [] }
  })
  const page = await context.newPage()
  await page.goto('/s/skerrow/watch')
  await page.getByLabel('User name').fill('ines')
  await page.getByLabel('Password').fill('watch-the-slip')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('link', { name: 'Handover' }).click()
  await expect(card(page, 'Record 1').getByRole('link', { name: 'Open PDF' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Sign…' })).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Make record…' })).toHaveCount(0)
  await context.close()
})
