import { expect, test, type Page } from './test.ts'
import type { AlarmView, SiteActionsView } from '../core/api.ts'

test.describe.configure({ mode: 'serial' })
const kept = (page: Page) => expect(page.locator('.sync-status')).toHaveText('All changes saved')
const view = async (page: Page): Promise<SiteActionsView> =>
  (await page.request.get('/api/sites/skerrow/actions')).json()
const linksOf = async (page: Page, id: string): Promise<string[]> =>
  (await view(page)).detections.find((d) => d.detection.id === id)!.actions.actions.links
const cell = (page: Page, detection: string, endpoint: string) =>
  page.getByRole('button', { name: new RegExp(`^${detection}, ${endpoint}:`) })
const alarms = async (page: Page): Promise<AlarmView[]> =>
  ((await (await page.request.get('/api/sites/skerrow/alarms')).json()) as { alarms: AlarmView[] })
    .alarms
/** The address of the simulators' pages. */
const simulators = async (page: Page): Promise<string> =>
  (
    (await (await page.request.get('/api/sites/skerrow/simulators')).json()) as {
      running: { pages: string }
    }
  ).running.pages

test('the matrix shows links and coverage; links by click, block and keyboard', async ({
  page
}) => {
  await page.goto('/actions')
  await expect(cell(page, 'Quay edge', 'Strobe on the mast')).toHaveText('50%')
  await expect(cell(page, 'Door after hours', 'Floodlight')).toHaveText('78%')
  await expect(cell(page, 'Quay edge', 'Voice on the mast')).toHaveAttribute(
    'aria-label',
    /linked, on for all armed time$/
  )
  await cell(page, 'Quay edge', 'Northwatch station').click()
  await kept(page)
  expect(await linksOf(page, 'quay-edge')).toContain('station')

  // From one corner of a block to the other.
  await cell(page, 'All movement', 'E-mail to duty').hover()
  await page.mouse.down()
  await cell(page, 'Path crossing', 'Pop-up').hover()
  await page.mouse.up()
  await kept(page)
  for (const id of ['path-movement', 'path-people', 'path-crossing'])
    expect(await linksOf(page, id)).toEqual(
      expect.arrayContaining(['duty-mail', 'station', 'popup'])
    )
  await page.keyboard.press('Control+z')
  await kept(page)
  expect(await linksOf(page, 'path-people')).toEqual([])

  await cell(page, 'Ticket window', 'E-mail to duty').focus()
  await page.keyboard.press(' ')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect(cell(page, 'Ticket window', 'Pop-up')).toBeFocused()
  await kept(page)
  expect(await linksOf(page, 'ticket-window')).toEqual(
    expect.arrayContaining(['popup', 'duty-mail'])
  )
  await page.reload()
  await page.getByRole('button', { name: /(^|\s)Undo$/ }).click()
  await kept(page)
  expect(await linksOf(page, 'ticket-window')).not.toContain('duty-mail')
})

test('sets up an output: refuses a number out of range; its test reaches the simulator', async ({
  page
}) => {
  await page.goto('/actions')
  await page.getByRole('button', { name: /^Strobe on the mast$/ }).click()
  const panel = page.getByRole('article', { name: 'Strobe on the mast' })
  await panel.getByLabel('Flashes for').fill('75')
  await page.keyboard.press('Enter')
  await expect(panel.getByRole('alert')).toHaveText('Duration is 75 s; enter 1 to 60 s.')
  await expect(panel.getByLabel('Flashes for')).toHaveValue('75')
  await panel.getByLabel('Flashes for').fill('25')
  await page.keyboard.press('Enter')
  await panel.getByText('slow', { exact: true }).click()
  await kept(page)
  await panel.getByRole('button', { name: /Test$/ }).click()
  await expect(panel.getByRole('status')).toContainText('Slipway camera switched it on')
  const { outputs } = (await (
    await page.request.get(`${await simulators(page)}/state`)
  ).json()) as {
    outputs: { token: string; active: boolean; settings: object }[]
  }
  expect(outputs.find((o) => o.token === 'strobe')).toMatchObject({
    active: true,
    settings: { Time: 'PT25S', Pattern: 'slow' }
  })

  // One that nobody has set up becomes a column of its own.
  await page.getByRole('button', { name: /^Buzzer/ }).click()
  await expect(page.getByRole('article', { name: 'Buzzer' })).toContainText(
    'No detections. Link one in the matrix.'
  )
  await cell(page, 'Yard camera care', 'Buzzer').click()
  await kept(page)
  expect(await linksOf(page, 'yard-care')).toHaveLength(1)
})

test('plays a custom message before saving; refuses a wrong file naming the byte', async ({
  page
}) => {
  await page.goto('/actions?endpoint=voice-mast')
  const panel = page.getByRole('article', { name: 'Voice on the mast' })
  await panel.locator('input[type=file]').setInputFiles({
    name: 'song.wav',
    mimeType: 'audio/wav',
    buffer: Buffer.from('ID3 no wave at all')
  })
  await expect(panel.getByRole('alert')).toHaveText(/is "ID3 "; a WAVE file begins with "RIFF"/)
  await panel.locator('input[type=file]').setInputFiles('server/voices/closed.wav')
  await expect(panel.getByText('closed (4.3 s)')).toBeVisible()
  await kept(page)
  const seconds = await panel.locator('audio').evaluate(
    (audio: HTMLAudioElement) =>
      new Promise<number>((resolve) => {
        audio.addEventListener('loadedmetadata', () => resolve(audio.duration))
        audio.addEventListener('error', () => resolve(-1))
        audio.preload = 'metadata'
        audio.load()
      })
  )
  expect(seconds).toBeCloseTo(4.33, 1)
})

test('one trigger gives an alarm, a pop-up and every delivery, retried while the station is silent; acknowledged with a comment', async ({
  page
}) => {
  const pages = await simulators(page)
  await page.request.post(`${pages}/station/mood`, { form: { value: 'silent' }, maxRedirects: 0 })
  await page.goto('/actions?camera=waiting-room&detection=waiting-room-door')
  const panel = page.getByRole('article', { name: 'Door after hours' })
  await panel.getByRole('button', { name: 'Trigger now…' }).click()
  await page.getByRole('button', { name: /(^|\s)Trigger$/ }).click()
  await expect(page).toHaveURL(/\/actions\/alarms$/)
  const alarm = page.getByRole('listitem').filter({ hasText: 'Door after hours' }).first()
  const line = (name: string) => alarm.getByRole('listitem').filter({ hasText: name })
  await expect(
    page.locator('.popup').filter({ hasText: 'Waiting room: Door after hours: contact active' })
  ).toBeVisible()
  await expect(line('E-mail to duty')).toContainText('delivered after')
  await expect(line('Pop-up')).toContainText('delivered after')
  await expect(line('Northwatch station')).toContainText('the station did not answer within 5 s', {
    timeout: 30_000
  })
  await expect(page.getByRole('link', { name: /\d new$/ })).toBeVisible()
  await page.request.post(`${pages}/station/mood`, { form: { value: 'answers' }, maxRedirects: 0 })
  await expect(line('Northwatch station')).toContainText('delivered after', { timeout: 40_000 })
  await line('Northwatch station')
    .getByRole('button', { name: 'History of Northwatch station' })
    .click()
  await expect(page.getByRole('tooltip')).toContainText('the station did not answer within 5 s')
  await expect(page.getByRole('tooltip')).toContainText('the station confirmed')
  await page.keyboard.press('Escape')
  await page.getByRole('heading', { name: 'Wardoptic' }).or(page.locator('.brand')).first().hover()

  await alarm.getByRole('button', { name: 'Acknowledge…' }).click()
  await page.getByRole('button', { name: 'Acknowledge', exact: true }).click()
  await expect(page.getByText('Enter a comment: this alarm requires one.')).toBeVisible()
  await page.getByLabel('Comment').fill('The cleaner')
  await page.getByRole('button', { name: 'Acknowledge', exact: true }).click()
  await expect(alarm).toContainText('acknowledged by Isla Brae')
  await expect(alarm).toContainText('“The cleaner”')
  expect((await alarms(page))[0]).toMatchObject({ state: 'acknowledged', comment: 'The cleaner' })
})

test('gives default actions to unlinked detections; the site then shows them linked', async ({
  page
}) => {
  await page.goto('/site')
  const yard = page.getByRole('link', { name: /Workshop yard/ }).first()
  await expect(page.getByText(/People moving has no actions/)).toBeVisible()
  await page.goto('/actions')
  await page.getByRole('button', { name: /^Add to \d without actions$/ }).click()
  await expect(page.getByRole('button', { name: 'Every detection has actions' })).toBeDisabled()
  await kept(page)
  expect(await linksOf(page, 'path-people')).toEqual(['duty-mail', 'popup', 'record'])
  await page.goto('/site')
  await expect(page.getByText(/has no actions/)).toHaveCount(0)
  await expect(yard.locator('.notch.failed').filter({ hasText: 'Linked' })).toHaveCount(0)
})

test('mail server and people: errors keep what was typed; mails a group’s members', async ({
  page
}) => {
  await page.goto('/actions/mail')
  const server = page.getByRole('region', { name: 'Mail server' })
  await server.getByLabel('Port').fill('99999')
  await server.getByRole('button', { name: /(^|\s)Save$/ }).click()
  await expect(server.getByRole('alert')).toHaveText('Port is 99999; enter 1 to 65535.')
  await server.getByLabel('Port').fill('25')
  await server.getByRole('button', { name: /(^|\s)Save$/ }).click()
  await expect(server.getByRole('alert')).toHaveCount(0)
  await page.goto('/actions?endpoint=duty-mail')
  const panel = page.getByRole('article', { name: 'E-mail to duty' })
  await panel.getByLabel('And to people').click()
  await page.getByTitle('Duty team (2)').click()
  await page.keyboard.press('Escape')
  await kept(page)
  await panel.getByRole('button', { name: 'Send test e-mail' }).click()
  await expect(panel.getByRole('status').locator('.anticon-check')).toBeVisible()
  await page.goto('/mailbox')
  await expect(
    page.getByRole('link', { name: /Skerrow Landing: test of E-mail to duty/ }).first()
  ).toContainText('ines@skerrow.example')
})

test('a long matrix draws what is in sight, and goes on by wheel and keyboard', async ({
  page
}) => {
  const MANY = 120
  const line = (n: number) => ({
    id: `many-${n}`,
    name: `Many ${n}`,
    kind: 'line',
    line: [
      [0.1, 0.2 + n / 200],
      [0.9, 0.2 + n / 200]
    ]
  })
  for (let n = 0; n < MANY; n++) {
    const detection = line(n)
    const answer = await page.request.put(
      `/api/sites/skerrow/cameras/vehicle-lanes/detections/${detection.id}`,
      { data: { detection, position: 100 + n, version: 0 } }
    )
    expect(answer.ok()).toBe(true)
  }
  await page.goto('/actions')
  const grid = page.getByRole('grid')
  await expect(cell(page, 'Quay edge', 'Pop-up')).toBeVisible()
  expect(Number(await grid.getAttribute('aria-rowcount'))).toBeGreaterThan(MANY)
  expect(await grid.locator('tr').count()).toBeLessThan(60)

  await grid.hover()
  const last = cell(page, `Many ${MANY - 1}`, 'Pop-up')
  await expect(async () => {
    await page.mouse.wheel(0, 3000)
    await expect(last).toBeInViewport({ timeout: 1000 })
  }).toPass()
  await last.click()
  await kept(page)
  expect(await linksOf(page, `many-${MANY - 1}`)).toEqual(['popup'])

  // By keyboard past what was drawn, which the wheel has taken out of sight meanwhile.
  for (let n = 1; n <= 40; n++) await page.keyboard.press('ArrowUp')
  await expect(cell(page, `Many ${MANY - 41}`, 'Pop-up')).toBeFocused()
  await expect(cell(page, `Many ${MANY - 41}`, 'Pop-up')).toBeInViewport()
  await page.mouse.wheel(0, -20_000)
  await expect(cell(page, 'Quay edge', 'Pop-up')).toBeInViewport()
  await expect(cell(page, `Many ${MANY - 41}`, 'Pop-up')).toBeFocused()
})
