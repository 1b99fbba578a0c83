import { expect, test, type Page } from './test.ts'

/** Opens an entry of the account's menu. */
async function opened(page: Page, entry: string, title: string) {
  await page.locator('.user').click()
  await page.getByRole('menuitem', { name: entry }).click()
  return page.getByRole('dialog', { name: title })
}

test('shows and ends own sessions, logs it, and sets retention', async ({
  page,
  browser,
  baseURL
}) => {
  await page.goto('/site')
  const { username } = (await (await page.request.get('/api/session')).json()) as {
    username: string
  }
  // Somewhere else, signed in as the same.
  const other = await browser.newContext({ baseURL, storageState: { cookies: [], origins: [] } })
  const elsewhere = await other.newPage()
  await elsewhere.goto('/')
  await elsewhere.getByLabel('User name').fill(username)
  await elsewhere.getByLabel('Password').fill('ferry-at-seven')
  await elsewhere.getByRole('button', { name: 'Sign in' }).click()
  await expect(elsewhere.getByRole('heading', { name: 'Skerrow Landing' })).toBeVisible()

  const sessions = await opened(page, 'Sessions…', 'Your sessions')
  await expect(sessions).toContainText('this session')
  // The newest stands first; other runs may have left some.
  const ends = sessions.getByRole('button', { name: 'Sign out', exact: true })
  const before = await ends.count()
  await ends.first().click()
  await expect(ends).toHaveCount(before - 1)
  // What is open there finds out by itself.
  await expect(elsewhere.getByRole('button', { name: 'Sign in' })).toBeVisible({ timeout: 30_000 })
  await other.close()
  await page.keyboard.press('Escape')

  const audit = await opened(page, 'Audit log…', 'Audit log')
  await expect(audit.getByRole('row').nth(1)).toContainText('Ended one of own sessions')
  await expect(audit).toContainText('Signed in')
  await page.keyboard.press('Escape')

  const storage = await opened(page, 'Storage…', 'Storage')
  await expect(storage).toContainText('free on the disk')
  await storage.getByLabel('Device events, days').fill('60')
  await storage.getByRole('button', { name: /(^|\s)Save$/ }).click()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(
    (await opened(page, 'Storage…', 'Storage')).getByLabel('Device events, days')
  ).toHaveValue('60')
})

test('no place violates the content policy', async ({ page }) => {
  await page.addInitScript(() => {
    const refused: string[] = []
    Object.assign(window, { refused })
    document.addEventListener('securitypolicyviolation', (e) =>
      refused.push(`${e.effectiveDirective} ${e.blockedURI} ${e.sourceFile}:${e.lineNumber}`)
    )
  })
  for (const place of [
    '/site',
    '/devices',
    '/bench/slipway',
    '/arming/nights',
    '/actions',
    '/actions?endpoint=voice-mast',
    '/actions/alarms',
    '/actions/mail',
    '/prove?camera=slipway&detection=quay-edge',
    '/watch',
    '/watch/search',
    '/mailbox'
  ]) {
    await page.goto(place)
    await expect(page.getByRole('main').first()).toBeVisible()
    await page.locator('.user').click()
    await expect(page.getByRole('menuitem', { name: 'Sign out' })).toBeVisible()
    expect({
      place,
      refused: await page.evaluate(() => (window as unknown as { refused: string[] }).refused)
    }).toEqual({ place, refused: [] })
  }
})
