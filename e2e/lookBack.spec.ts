import { join } from 'node:path'
import { closeHour, openHours } from '../server/lookBack/closing.ts'
import { HourWriter } from '../server/lookBack/hourWriter.ts'
import { PictureWriter } from '../server/lookBack/pictureFile.ts'
import { createCanvas } from '@napi-rs/canvas'
import { expect, test } from './test.ts'

const HOUR_MS = 3_600_000
const DAY_MS = 24 * HOUR_MS
/** Three whole days that are over: what the camera's own scene does meanwhile is not in them. */
const FROM = Math.floor(Date.now() / DAY_MS) * DAY_MS - 3 * DAY_MS
const TO = FROM + 3 * DAY_MS
const A_DAY = 8
const SECONDS = 15

/** Each hour one comes up the slipway: in turn somebody, and something much smaller that is taken for somebody. */
const visits = Array.from({ length: 3 * A_DAY }, (_, n) => ({
  target: n + 1,
  at: FROM + Math.floor(n / A_DAY) * DAY_MS + (8 + (n % A_DAY)) * HOUR_MS,
  small: n % 2 === 1
}))

test.beforeAll(async ({ siteOfFile, baseURL }) => {
  expect(baseURL).toBeTruthy()
  const folder = join(siteOfFile.folder, 'look-back')
  const writer = new HourWriter(folder, {
    closed: () => {},
    failed: (error) => {
      throw error
    }
  })
  writer.begin('slipway', FROM)
  for (const { target, at, small } of visits)
    for (let k = 0; k < SECONDS * 10; k++) {
      const y = 0.36 + (0.45 * k) / (SECONDS * 10)
      const [w, h] = small ? [0.02, 0.03] : [0.05, 0.16]
      writer.take('slipway', at + 100 * k, [
        { id: target, class: 'person', x: 0.45, y: y - h, w, h }
      ])
    }
  writer.closeAll(TO)
  const pictures = new PictureWriter(folder)
  const jpeg = createCanvas(480, 270).toBuffer('image/jpeg')
  for (const { at } of visits) await pictures.add('slipway', { at: at + 9000, jpeg })
  for (const { camera, hour } of await openHours(folder, TO + HOUR_MS))
    if (hour < TO) await closeHour(folder, camera, hour)
})

const day = `range=${FROM}-${FROM + DAY_MS}`

test('a line is answered for a day that is past; a trigger is marked, and stays marked', async ({
  page
}) => {
  await page.goto(`/s/skerrow/bench/slipway?back=true&${day}&detection=quay-edge`)
  await expect(page.locator('.rail-item').first()).toContainText(`${A_DAY} triggers`)
  await expect(page.getByRole('region', { name: 'Days of this camera' })).toBeVisible()
  await expect(
    page.getByText(/^About \d.* triggers a day by the last \d days? \(95 %/)
  ).toBeVisible()
  // Flags of moments, told by the site's clock.
  await page.getByRole('button', { name: /^Trigger of Quay edge, target 2, at 09:00:/ }).click()
  // Its target as it was seen then: the picture that was kept, and the way to its moment.
  const seen = page.getByRole('button', { name: /^As it was seen, .*09:00:09$/ })
  await expect(seen.locator('img')).toHaveJSProperty('naturalWidth', 480)
  await seen.click()
  await expect(page.getByText(/^Picture of .*09:00:09\. Motion/)).toBeVisible()
  await expect(page.getByRole('img', { name: /^The camera’s picture, .*09:00:09$/ })).toBeVisible()
  const marking = page.getByRole('group', { name: 'Was this trigger wanted?' })
  await marking.getByRole('button', { name: 'Nuisance' }).click()
  await expect(marking.getByRole('button', { name: 'Nuisance' })).toHaveAttribute(
    'aria-pressed',
    'true'
  )
  await page.reload()
  await expect(
    page
      .getByRole('group', { name: 'Was this trigger wanted?' })
      .getByRole('button', { name: 'Nuisance' })
  ).toHaveAttribute('aria-pressed', 'true')
  // What was said of it becomes a check, which fails by the settings that made it trigger.
  await marking.getByRole('button', { name: 'Use as a check' }).click()
  await marking.getByRole('link', { name: 'Open it' }).click()
  await expect(page).toHaveURL(/\/prove\?.*detection=quay-edge/)
  const panel = page.getByRole('complementary', { name: 'Check' })
  await panel.getByRole('button', { name: /Run$/ }).click()
  await expect(panel).toContainText('but must not trigger')
})

test('a stretch becomes a clip, with the same triggers; a longer one cannot', async ({ page }) => {
  const from = FROM + 8.5 * HOUR_MS
  const hour = `/s/skerrow/bench/slipway?back=true&range=${from}-${from + HOUR_MS}&detection=quay-edge`
  await page.goto(hour)
  await expect(page.locator('.rail-item').first()).toContainText('1 trigger')
  await page.getByRole('button', { name: 'Last 6 hours' }).click()
  await expect(page.getByRole('button', { name: 'Save as clip' })).toBeDisabled()
  await page.goto(hour)
  await page.getByRole('button', { name: 'Save as clip' }).click()
  await expect(page.getByText('the targets are what the camera reported')).toBeVisible()
  const clip = page.locator('video')
  await expect(clip).toHaveJSProperty('videoWidth', 480)
  await expect(page.locator('.rail-item').first()).toContainText('1 trigger')
  await expect(page.getByRole('button', { name: /^Trigger of Quay edge, target 2/ })).toBeVisible()
})

test('a setting is swept, and settings are recommended, taken and taken back', async ({ page }) => {
  const path = '/api/sites/skerrow/cameras/slipway/marks'
  for (const { id } of (await (await page.request.get(path)).json()) as { id: number }[])
    await page.request.delete(`${path}/${id}`)
  for (const { target, at, small } of visits) {
    const answer = await page.request.post(path, {
      data: {
        detection: 'quay-edge',
        target,
        at: at + 4500,
        mark: small ? 'nuisance' : 'wanted'
      }
    })
    expect(answer.status()).toBe(201)
  }
  await page.goto(`/s/skerrow/bench/slipway?back=true&${day}&detection=quay-edge`)
  const tune = page.getByRole('region', { name: 'Tune' })
  await expect(tune).toContainText('12 wanted marks, 12 nuisance marks')
  await tune.getByRole('combobox', { name: 'Setting to sweep' }).click()
  await page.getByTitle('confirmation, s').click()
  await expect(tune.getByText(/^At 0\.5: \d.* wanted, \d.* nuisances and .* a day/)).toBeVisible()

  await tune.getByRole('button', { name: 'Recommend settings' }).click()
  await expect(tune).toContainText(
    'On days left out: 12 of 12 wanted kept, 12 of 12 nuisances gone'
  )
  await expect(tune.getByRole('list', { name: 'What changes' }).getByRole('listitem')).toHaveText([
    /^Size limits larger than /
  ])
  // The camera that is simulated says which settings its rules have.
  await expect(tune.getByText('Slipway camera can hold all of it.')).toBeVisible()
  await tune.getByRole('button', { name: 'Take these settings' }).click()
  await expect(page.locator('.rail-item').first()).toContainText('4 triggers')
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(page.locator('.rail-item').first()).toContainText(`${A_DAY} triggers`)
})

test('a range is dragged over the days, and a camera of which nothing is kept says so', async ({
  page
}) => {
  await page.goto('/s/skerrow/bench/slipway?back=true')
  await expect(page.getByText('Drag over the days to choose up to 24 hours.')).toBeVisible()
  const strip = page.locator('.look-back-strip')
  const box = (await strip.boundingBox())!
  await page.mouse.move(box.x + 20, box.y + 20)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width - 20, box.y + 20, { steps: 4 })
  await page.mouse.up()
  const [from, to] = new URL(page.url()).searchParams.get('range')!.split('-').map(Number)
  expect(to! - from!).toBe(DAY_MS)
  await page.goto('/s/skerrow/bench/workshop-yard?back=true')
  await expect(page.getByText(/nothing to look back at|Nothing has been kept/)).toBeVisible()
})

test('an alarm is marked with one key, and the site says what is worst', async ({ page }) => {
  const sent = await page.request.post('/api/sites/skerrow/triggers', {
    data: { key: 'one', camera: 'slipway', detection: 'quay-edge', target: 7 }
  })
  expect(sent.status()).toBe(201)
  await page.goto('/s/skerrow/watch')
  await page.locator('.alarm-line').first().click()
  const marking = page.getByRole('group', { name: 'Was this alarm wanted?' })
  await page.keyboard.press('n')
  await expect(marking.getByRole('button', { name: 'Nuisance' })).toHaveAttribute(
    'aria-pressed',
    'true'
  )
  // Whoever writes a comment writes letters.
  await page.getByRole('textbox', { name: 'Comment' }).fill('w')
  await page.getByRole('textbox', { name: 'Comment' }).press('w')
  await expect(marking.getByRole('button', { name: 'Nuisance' })).toHaveAttribute(
    'aria-pressed',
    'true'
  )
  await page.goto('/s/skerrow')
  const nuisances = page.getByRole('region', { name: 'Nuisances' })
  await expect(nuisances).toContainText('Quay edge')
  await nuisances.getByRole('link', { name: 'Tune' }).click()
  await expect(page.getByRole('button', { name: 'Look back' })).toHaveAttribute(
    'aria-pressed',
    'true'
  )
})

test('a camera is named whose pictures Wardoptic analyses, and it says how that goes', async ({
  page
}) => {
  await page.goto('/s/skerrow/site')
  await page.getByRole('button', { name: 'Edit site…' }).click()
  const form = page.getByRole('region', { name: 'Look back' })
  await form.getByLabel('Cameras whose pictures Wardoptic analyses').click()
  await page.getByTitle('Quay path').click()
  await form.getByText('This machine can analyse').click()
  await form.getByRole('button', { name: 'Save look back' }).click()
  await expect(form.getByRole('listitem')).toHaveText(
    /^Quay path: (its device reports targets|no device that can be reached)/
  )
})
