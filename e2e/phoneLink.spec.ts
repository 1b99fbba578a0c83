import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { serious } from './axe.ts'
import { expect, test, type Locator } from './test.ts'

const reader = readFileSync(createRequire(import.meta.url).resolve('jsqr/dist/jsQR.js'), 'utf8')

/** What a general reader of QR codes (jsQR) makes of a picture of a place on the page. */
async function readCode(place: Locator): Promise<string | null> {
  const picture = (await place.screenshot()).toString('base64')
  const page = place.page()
  await page.evaluate(reader)
  return page.evaluate(async (png) => {
    const image = new Image()
    image.src = `data:image/png;base64,${png}`
    await image.decode()
    const canvas = new OffscreenCanvas(image.width, image.height)
    const g = canvas.getContext('2d')!
    g.drawImage(image, 0, 0)
    const { data, width, height } = g.getImageData(0, 0, image.width, image.height)
    const { jsQR } = window as unknown as {
      jsQR: (data: Uint8ClampedArray, width: number, height: number) => { data: string } | null
    }
    return jsQR(data, width, height)?.data ?? null
  }, picture)
}

test('a walk test is opened on a phone by its QR code, walked there, followed at the desk, and revoked', async ({
  page,
  browser,
  baseURL
}) => {
  // The camera holds its rules, so that the walk can pass.
  const sent = await page.request.post('/api/sites/skerrow/sendings', {
    data: { devices: ['cam-slipway'] }
  })
  const { id } = (await sent.json()) as { id: string }
  await expect
    .poll(async () => {
      const state = await page.request.get(`/api/sites/skerrow/sendings/${id}`)
      return ((await state.json()) as { finished: boolean }).finished
    })
    .toBe(true)
  // The walk is that of the plainest check, once these are worked out.
  await page.request.post('/api/sites/skerrow/proving/propose')
  await expect
    .poll(async () => {
      const state = await page.request.get('/api/sites/skerrow/proving')
      const { proposing, unasked } = (await state.json()) as Record<string, number>
      return [proposing, unasked]
    })
    .toEqual([0, 0])
  await page.goto('/prove/walk?camera=slipway')
  await page.getByRole('button', { name: 'Open on phone' }).click()
  const dialog = page.getByRole('dialog', { name: /on a phone$/ })
  // The tests' server listens on this machine only.
  await expect(dialog.getByRole('alert')).toContainText('listens on this machine only')
  const place = dialog.getByRole('img', { name: 'QR code of the walk test' })
  await expect(place).toBeVisible()
  expect(await serious(page)).toEqual([])
  let address: string | null = null
  await expect.poll(async () => (address = await readCode(place))).not.toBeNull()
  expect(address).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/phone#[\w-]{43}$/)

  // Nobody has signed in on it.
  const pocket = await browser.newContext({
    baseURL: baseURL!,
    storageState: { cookies: [], origins: [] },
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true
  })
  try {
    const phone = await pocket.newPage()
    await phone.goto(address!)
    const start = phone.getByRole('button', { name: 'Walk', exact: true })
    await expect(start).toBeVisible()
    await expect(phone.getByText('For Isla Brae, until')).toBeVisible()
    // The code is not kept in the phone's history.
    await expect(phone).toHaveURL(/\/phone$/)
    await expect(dialog.getByRole('status')).toContainText('The phone has opened the walk test')
    const again = await pocket.newPage()
    await again.goto(address!)
    await expect(again.getByRole('heading', { name: 'This code can’t be used' })).toBeVisible()
    await again.goto('/s/skerrow/site')
    await expect(again.getByLabel('Password')).toBeVisible()
    await again.close()

    const seen = () =>
      phone.locator('canvas').evaluate((c: HTMLCanvasElement) => c.toDataURL('image/jpeg', 0.2))
    await expect.poll(async () => (await seen()).length).toBeGreaterThan(3000)
    expect(
      await phone.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
    ).toBe(0)
    expect(await serious(phone)).toEqual([])
    await start.tap()
    await expect(phone.locator('.walk-verdict')).toContainText('Passed', { timeout: 120_000 })
    expect(await serious(phone)).toEqual([])
    await expect(page.locator('.walk-verdict')).toContainText('Passed')

    // A page that is loaded again is still in.
    await phone.reload()
    await expect(phone.getByRole('button', { name: /^Walk/ })).toBeVisible()
    await dialog.getByRole('button', { name: 'Revoke' }).click()
    await expect(phone.getByRole('heading', { name: 'Access ended' })).toBeVisible()
    await phone.goto('/phone')
    await expect(phone.getByRole('heading', { name: 'Scan the code of a walk test' })).toBeVisible()
  } finally {
    await pocket.close()
  }
})

test('a code that nobody used is good for nobody once its dialog is closed', async ({ page }) => {
  await page.goto('/prove/walk?camera=slipway')
  await page.getByRole('button', { name: 'Open on phone' }).click()
  const dialog = page.getByRole('dialog', { name: /on a phone$/ })
  await expect(dialog.getByRole('img', { name: 'QR code of the walk test' })).toBeVisible()
  const links = async (): Promise<number> => {
    const answer = await page.request.get('/api/sites/skerrow/cameras/slipway/walk/links')
    return ((await answer.json()) as { links: object[] }).links.length
  }
  expect(await links()).toBe(1)
  await page.keyboard.press('Escape')
  await expect(dialog).toBeHidden()
  await expect.poll(links).toBe(0)
})
