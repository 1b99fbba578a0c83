import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { expect, test } from './test.ts'

const demo = fileURLToPath(new URL('../demo/clips/slipway-morning.mp4', import.meta.url))
let folder: string
test.beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'wardoptic-e2e-'))))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

test('a camera without a clip shows its live picture; adds and analyses one with progress, and draws on it', async ({
  page
}) => {
  // The demo's own clips may still be waiting to be analysed before this one.
  test.setTimeout(300_000)
  await page.goto('/bench/vehicle-lanes')
  await expect(page.getByRole('img', { name: 'Live picture' })).toBeVisible()
  // Drawing waits for no clip.
  await expect(page.getByRole('button', { name: 'Line L' })).toBeEnabled()
  await page.getByLabel('Clip file').setInputFiles(demo)
  await expect(page.getByRole('heading', { name: 'Analysing slipway-morning.mp4' })).toBeVisible()
  await expect(page.locator('.analysis-strip .ant-progress')).toContainText(/[1-9]\d?%/, {
    timeout: 200_000
  })
  await expect(page.locator('.target-lane')).toHaveCount(7, { timeout: 200_000 })
  await expect(page.getByRole('button', { name: 'Line L' })).toBeEnabled()
})

test('stops and resumes an analysis, and deletes its clip', async ({ page }) => {
  await page.goto('/bench/fuel-pontoon')
  await page.getByLabel('Clip file').setInputFiles(demo)
  await expect(page.getByRole('heading', { name: /^Analysing/ })).toBeVisible()
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(page.getByText('has not been analysed')).toBeVisible()
  await page.getByRole('button', { name: /(^|\s)Analyse$/ }).click()
  await expect(page.getByRole('heading', { name: /^Analysing/ })).toBeVisible()
  await page.getByRole('button', { name: 'Stop' }).click()
  await page.getByRole('button', { name: 'Name and start…' }).click()
  await page.getByRole('button', { name: 'Remove clip' }).click()
  await page.getByRole('button', { name: /(^|\s)Remove$/ }).click()
  await expect(page.getByRole('img', { name: 'Live picture' })).toBeVisible()
})

test('unusable files say why and leave the Bench unchanged', async ({ page }) => {
  // Half a clip is analysed up to where it ends, beside whatever else is.
  test.setTimeout(300_000)
  await page.goto('/bench/fuel-pontoon')
  const send = async (name: string, content: Buffer) => {
    const file = join(folder, name)
    writeFileSync(file, content)
    await page.getByLabel('Clip file').setInputFiles(file)
  }
  const error = page.getByRole('alert')
  await send('letter.mp4', Buffer.from('Dear sir, this is no video.'))
  await expect(error).toContainText('letter.mp4 is not a video that can be read')
  await send('empty.mp4', Buffer.alloc(0))
  await expect(error).toContainText('empty.mp4 is empty; choose a video file')
  await send('large.avi', Buffer.alloc(3 * 2 ** 20 + 10, 1))
  await expect(error).toContainText('larger than 3 MB')
  const whole = readFileSync(demo)
  await send('half.mp4', whole.subarray(0, whole.length / 2))
  await expect(error).toContainText('is cut off: it should last 64.0 s', {
    timeout: 200_000
  })
  await expect(page.getByRole('img', { name: 'Live picture' })).toBeVisible()
})

test('plays a clip of another format', async ({ page }) => {
  const file = join(folder, 'yard.avi')
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-i',
    demo,
    '-t',
    '12',
    '-c:v',
    'mpeg4',
    '-q:v',
    '6',
    file
  ])
  await page.goto('/bench/fuel-pontoon')
  await page.getByLabel('Clip file').setInputFiles(file)
  await expect(page.locator('.target-lane').first()).toBeVisible({ timeout: 60_000 })
  await expect
    .poll(() => page.locator('video').evaluate((v: HTMLVideoElement) => v.readyState))
    .toBeGreaterThanOrEqual(2)
})
