/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { AlarmView, AttemptView, DeliveryView } from '../../core/api.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { AlarmList } from './AlarmList.tsx'

const AT = Date.parse('2026-11-24T22:30:00Z')

const alarm = (id: number, more: Partial<AlarmView> = {}): AlarmView => ({
  id,
  camera: 'yard',
  cameraName: 'Yard',
  detection: 'gate',
  name: `Alarm ${id}`,
  note: null,
  severity: 'major',
  priority: 'normal',
  state: 'waiting',
  acknowledge: { comment: false, confirm: false },
  for: [],
  forNames: [],
  assignee: null,
  firstAt: AT,
  lastAt: AT,
  triggers: 1,
  acknowledgedAt: null,
  acknowledgedBy: null,
  comment: null,
  run: null,
  mark: null,
  deliveries: [],
  ...more
})
const delivery = (id: number, more: Partial<DeliveryView> = {}): DeliveryView => ({
  id,
  trigger: 1,
  kind: 'popup',
  name: `Action ${id}`,
  recipient: 'everyone',
  state: 'sent',
  by: 'server',
  does: 'on',
  attempts: 1,
  error: null,
  createdAt: AT,
  sentAt: AT + 400,
  nextAt: null,
  ...more
})

let alarms: AlarmView[]
let attempts: AttemptView[]
let refusal: { status: number; body: unknown } | null
let asked: Asked[]

beforeEach(() => {
  alarms = []
  attempts = []
  refusal = null
  asked = answerWith(({ method, path }) => {
    if (method === 'POST') return refusal ?? { body: {} }
    if (path.endsWith('/attempts')) return { body: attempts }
    const waiting = alarms.filter(({ state }) => state === 'waiting')
    return {
      body: {
        alarms: path.includes('waiting') ? waiting : alarms,
        more: false,
        waiting: waiting.length
      }
    }
  })
})
afterEach(cleanup)

const show = async (...list: AlarmView[]): Promise<void> => {
  alarms = list
  render(inApp(<AlarmList />))
  await waitFor(() => expect(screen.queryByText('Loading…')).toBeNull())
}
const item = (name: string) => within(screen.getByText(name).closest('li')!)
const posted = () => asked.filter(({ method }) => method === 'POST')

test('none yet: says what raises one', async () => {
  await show()
  expect(await screen.findByText(/No alarms yet/)).toBeTruthy()
})

test('those that wait are first, by their priority; each says what it is and whose', async () => {
  await show(
    alarm(3, {
      state: 'acknowledged',
      acknowledgedBy: 'Ines',
      acknowledgedAt: AT + 60_000,
      comment: 'A fox'
    }),
    alarm(2, { triggers: 4, lastAt: AT + 30_000, forNames: ['Isla', 'Office'] }),
    alarm(1, { priority: 'high', firstAt: AT - 60_000 })
  )
  await screen.findByText('Alarm 1')
  expect(screen.getAllByText(/^Alarm \d$/).map((name) => name.textContent)).toEqual([
    'Alarm 1',
    'Alarm 2',
    'Alarm 3'
  ])
  expect(
    item('Alarm 2').getByText(/Yard · 24 Nov 2026, 22:30:00 · .*4 .*Isla, Office/)
  ).toBeTruthy()
  expect(item('Alarm 3').getByText('acknowledged by Ines at 22:31:00: “A fox”')).toBeTruthy()
  expect(item('Alarm 3').queryByRole('button', { name: 'Acknowledge…' })).toBeNull()
})

test('one without actions leads to where they are added', async () => {
  await show(alarm(1))
  const link = await screen.findByRole('link', { name: 'add actions' })
  expect(link.getAttribute('href')).toBe('/actions?camera=yard&detection=gate')
})

test('each delivery says what became of it; one that failed is tried again', async () => {
  await show(
    alarm(1, {
      deliveries: [
        delivery(1),
        delivery(2, { state: 'failed', error: 'no answer', sentAt: null, attempts: 5 }),
        delivery(3, { state: 'pending', sentAt: null, attempts: 2, nextAt: AT + 90_000 }),
        delivery(4, { state: 'held', error: 'outside its hours', sentAt: null, attempts: 0 }),
        delivery(5, { by: 'camera' })
      ]
    })
  )
  const row = async (name: string): Promise<HTMLElement> =>
    (await screen.findByText(name)).closest('li')!
  expect((await row('Action 1')).textContent).toMatch(/after 0\.4 s by the server/)
  expect((await row('Action 5')).textContent).toMatch(/by the camera/)
  expect((await row('Action 2')).textContent).toContain('no answer')
  expect((await row('Action 3')).textContent).toContain('2 attempts so far, next at 22:31:30')
  // What was not made has no history, and by nobody.
  expect((await row('Action 4')).textContent).toMatch(/outside its hours$/)
  expect(within(await row('Action 4')).queryByRole('button')).toBeNull()
  expect(screen.getAllByRole('button', { name: 'Retry' })).toHaveLength(1)
  await userEvent.click(screen.getByRole('button', { name: 'Retry' }))
  await waitFor(() => expect(posted().map(({ path }) => path)).toEqual(['/deliveries/2/retry']))
})

test('why it cannot be tried again is said', async () => {
  refusal = { status: 409, body: { code: 'conflict', said: 'It has been sent meanwhile.' } }
  await show(alarm(1, { deliveries: [delivery(2, { state: 'failed', sentAt: null })] }))
  await userEvent.click(await screen.findByRole('button', { name: 'Retry' }))
  expect(await screen.findByText('It has been sent meanwhile.')).toBeTruthy()
})

test('earlier triggers are summed up; their deliveries open', async () => {
  await show(
    alarm(1, {
      triggers: 2,
      deliveries: [
        delivery(3, { trigger: 2, createdAt: AT + 60_000 }),
        delivery(1),
        delivery(2, { state: 'failed', sentAt: null }),
        delivery(4, { trigger: null, does: 'off' })
      ]
    })
  )
  const [earlier, off] = await waitFor(() => {
    const found = [...document.querySelectorAll('summary')].map((s) => s.textContent)
    expect(found).toHaveLength(2)
    return found
  })
  expect(earlier).toMatch(/^22:30:00 .*: 1 .*, 1 /)
  expect(off).toMatch(/: 1 /)
})

test('the history of a delivery is asked for when it is opened', async () => {
  attempts = [
    { at: AT, ok: false, outcome: 'no answer' },
    { at: AT + 5000, ok: true, outcome: 'taken' }
  ] as AttemptView[]
  await show(alarm(1, { deliveries: [delivery(7, { attempts: 2 })] }))
  const history = await screen.findByRole('button', { name: 'History of Action 7' })
  expect(asked.some(({ path }) => path.endsWith('/attempts'))).toBe(false)
  await userEvent.click(history)
  expect((await screen.findByText(/no answer/)).textContent).toContain('22:30:00')
  expect(screen.getByText(/taken/).textContent).toContain('22:30:05')
  expect(asked.some(({ path }) => path === '/deliveries/7/attempts')).toBe(true)
})

test('acknowledging: what it takes is asked for, and what the server misses is said', async () => {
  refusal = { status: 422, body: { code: 'invalid', said: 'Needs a comment.' } }
  await show(alarm(9, { acknowledge: { comment: true, confirm: true } }))
  await userEvent.click(await screen.findByRole('button', { name: 'Acknowledge…' }))
  const comment = await screen.findByRole('textbox', { name: 'Comment' })
  await userEvent.click(screen.getByRole('button', { name: 'Acknowledge' }))
  expect((await screen.findByRole('alert')).textContent).toContain('Needs a comment.')
  await userEvent.type(comment, 'A fox')
  await userEvent.click(screen.getByRole('checkbox'))
  refusal = null
  await userEvent.click(screen.getByRole('button', { name: 'Acknowledge' }))
  await waitFor(() => expect(posted()).toHaveLength(2))
  expect(posted().map(({ path, body }) => [path, body])).toEqual([
    ['/alarms/9/acknowledge', { comment: '', confirmed: false }],
    ['/alarms/9/acknowledge', { comment: 'A fox', confirmed: true }]
  ])
})
