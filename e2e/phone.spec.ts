import { serious } from './axe.ts'
import { expect, test, type Page } from './test.ts'

/** The places that are used on site, on a phone held upright. */
test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })

const PLACES = [
  ['Site', '/site'],
  ['Devices', '/devices'],
  ['Watch', '/watch'],
  ['Walk test', '/prove/walk']
] as const
const ways = (page: Page) => page.getByRole('navigation', { name: 'Places' }).getByRole('link')

/** What lies beside the picture that a thumb can scroll to: nothing may. */
const beside = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)

test('each place of a phone fits its width, is reached by a thumb and passes axe', async ({
  page
}) => {
  await page.goto('/site')
  await expect(ways(page)).toHaveText(PLACES.map(([name]) => name))
  for (const [name] of PLACES) {
    await ways(page).getByText(name, { exact: true }).tap()
    await expect(page.getByRole('main')).toBeVisible()
    await expect(page.getByText('Loading…')).toHaveCount(0)
    expect([name, await beside(page)]).toEqual([name, 0])
    // 44 CSS px: the size of a target in WCAG 2.2, 2.5.5 (level AAA), from memory.
    for (const way of await ways(page).all()) {
      const box = (await way.boundingBox())!
      expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(44)
      expect(box.y + box.height).toBeLessThanOrEqual(844)
    }
    expect(await serious(page)).toEqual([])
  }
})

test('a walk test is started by a thumb, followed, and read at arm’s length', async ({ page }) => {
  test.setTimeout(240_000)
  // A check of its own: what the page would walk depends on which proposals have been worked out by then.
  const saved = await page.request.put('/api/sites/skerrow/cameras/slipway/checks/up-the-slip', {
    data: {
      version: 0,
      check: {
        id: 'up-the-slip',
        detection: 'quay-edge',
        name: 'Up the slip',
        about: 'passes',
        by: {
          how: 'walk',
          walk: {
            seconds: 11,
            light: 'day',
            actors: [
              {
                kind: 'adult',
                from: 0,
                way: [
                  [-0.12, 17.75],
                  [0.72, 7.28]
                ],
                speed: 1.35
              }
            ],
            seed: 1
          }
        },
        at: Date.UTC(2026, 10, 24, 10),
        expect: { what: 'trigger', from: 2.8, to: 5.8, direction: 'leftToRight' }
      }
    }
  })
  expect(saved.status()).toBe(200)
  await page.goto('/prove/walk?camera=slipway&check=up-the-slip')
  const start = page.getByRole('button', { name: 'Walk', exact: true })
  const box = (await start.boundingBox())!
  // In the lower third, and wide enough for either hand.
  expect(box.y).toBeGreaterThan((844 * 2) / 3)
  expect(box.width).toBeGreaterThan(300)
  await start.tap()
  await expect(page.getByRole('region', { name: 'Results' })).toContainText('Trigger of Quay edge')
  const verdict = page.locator('.walk-verdict')
  // Quay edge has not been sent to its camera: the walk says so.
  await expect(verdict).toContainText('Failed', { timeout: 120_000 })
  await expect(verdict).toContainText('unsent')
  const size = await verdict
    .locator('b')
    .evaluate((b) => Number.parseFloat(getComputedStyle(b).fontSize))
  expect(size).toBeGreaterThanOrEqual(36)
  expect(await beside(page)).toBe(0)
  expect(await serious(page)).toEqual([])
})

test('an alarm is acknowledged on a phone', async ({ page }) => {
  await page.goto('/watch')
  const sent = await page.request.post('/api/sites/skerrow/triggers', {
    data: { key: `phone-${Date.now()}`, camera: 'waiting-room', detection: 'waiting-room-door' }
  })
  expect(sent.status()).toBe(201)
  // Its pop-up is confirmed to the server as shown, so it must be seen: some letters of it at least.
  const words = page.locator('.popup-words')
  await expect(words).toBeVisible()
  expect((await words.boundingBox())!.width).toBeGreaterThan(60)
  const line = page.getByRole('button', { name: /Door after hours/ }).last()
  await line.tap()
  const desk = page.getByRole('region', { name: 'Alarm Door after hours' })
  await desk.getByRole('textbox', { name: /Comment/ }).fill('Looked, all shut.')
  await desk.getByRole('button', { name: 'Acknowledge' }).tap()
  await expect(desk).toContainText('Looked, all shut.')
  expect(await beside(page)).toBe(0)
})

test('can be installed, and says what it cannot do without its server', async ({
  browser,
  baseURL
}) => {
  const context = await browser.newContext({
    baseURL: baseURL!,
    viewport: { width: 390, height: 844 },
    serviceWorkers: 'allow'
  })
  try {
    const page = await context.newPage()
    await page.goto('/')
    const manifest = (await (
      await page.request.get(
        (await page.locator('link[rel=manifest]').getAttribute('href')) ?? 'none'
      )
    ).json()) as { name: string; display: string; icons: { src: string; sizes: string }[] }
    expect(manifest).toMatchObject({ name: 'Wardoptic', display: 'standalone' })
    for (const { src, sizes } of manifest.icons) {
      expect((await page.request.get(src)).status()).toBe(200)
      if (sizes === 'any') continue
      // As large as the manifest says, or no browser takes it.
      const size = await page.evaluate(async (address) => {
        const picture = new Image()
        picture.src = address
        await picture.decode()
        return `${picture.naturalWidth}x${picture.naturalHeight}`
      }, src)
      expect(size).toBe(sizes)
    }
    await page.evaluate(async () => {
      await navigator.serviceWorker.ready
    })
    await expect
      .poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null))
      .toBe(true)
    await context.setOffline(true)
    await page.goto('/s/skerrow/watch')
    await expect(page.getByRole('heading', { name: 'Wardoptic can’t be reached' })).toBeVisible()
    await expect(page.getByText('No live pictures, alarms or walk tests')).toBeVisible()
    expect(await serious(page)).toEqual([])
    await context.setOffline(false)
    await page.getByRole('link', { name: 'Try again' }).click()
    await expect(ways(page).first()).toBeVisible()
  } finally {
    await context.close()
  }
})
