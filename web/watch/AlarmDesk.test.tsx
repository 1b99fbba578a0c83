/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, describe, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { AlarmNote, AlarmView, DeliveryView } from '../../core/api.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { AlarmDesk } from './AlarmDesk.tsx'

afterEach(cleanup)

const delivery = (more: Partial<DeliveryView>): DeliveryView => ({
  id: 1,
  trigger: 1,
  kind: 'email',
  name: 'E-mail to duty',
  recipient: 'duty@example.org',
  state: 'sent',
  by: 'server',
  does: 'on',
  attempts: 1,
  error: null,
  createdAt: 1000,
  sentAt: 1400,
  nextAt: null,
  ...more
})
const alarm = (more: Partial<AlarmView> = {}): AlarmView => ({
  id: 7,
  camera: 'gate',
  cameraName: 'Gate camera',
  detection: 'line',
  name: 'Gate line',
  note: null,
  severity: 'major',
  priority: 'high',
  state: 'waiting',
  acknowledge: { comment: false, confirm: false },
  for: [],
  forNames: [],
  mark: null,
  assignee: null,
  firstAt: 0,
  lastAt: 60_000,
  triggers: 1,
  acknowledgedAt: null,
  acknowledgedBy: null,
  comment: null,
  run: null,
  deliveries: [],
  ...more
})
const show = (
  of: AlarmView,
  {
    mayAct = true,
    notes = [] as AlarmNote[],
    refuse = null as string | null,
    earlier = [] as AlarmView[]
  } = {}
): Asked[] => {
  const asked = answerWith(({ method, path }) => {
    if (method === 'POST')
      return refuse === null
        ? { body: of }
        : { status: 400, body: { code: 'bad-request', said: refuse } }
    if (path.endsWith('/notes')) return { body: notes }
    return { body: { triggers: [], next: null } }
  })
  render(
    inApp(<AlarmDesk alarm={of} earlier={earlier} people={['Ines', 'Ruth']} mayAct={mayAct} />)
  )
  return asked
}
const sent = (asked: readonly Asked[]) => asked.filter(({ method }) => method === 'POST')
const button = (name: string): HTMLElement => screen.getByRole('button', { name })

describe('offered steps', () => {
  test('acknowledges with a comment and confirmation', async () => {
    const asked = show(alarm({ acknowledge: { comment: true, confirm: true } }))
    await userEvent.type(screen.getByLabelText('Comment'), 'A fox')
    await userEvent.click(screen.getByRole('checkbox'))
    await userEvent.click(button('Acknowledge'))
    await waitFor(() => expect(screen.getByLabelText('Comment')).toHaveProperty('value', ''))
    expect(sent(asked)).toEqual([
      {
        method: 'POST',
        path: '/alarms/7/acknowledge',
        body: { comment: 'A fox', confirmed: true }
      }
    ])
  })

  test('acknowledges earlier ones of the same detection with it, only when asked to', async () => {
    const asked = show(alarm(), { earlier: [alarm({ id: 6 }), alarm({ id: 4 })] })
    await userEvent.click(button('Acknowledge'))
    await waitFor(() => expect(sent(asked)).toHaveLength(1))
    await userEvent.type(screen.getByLabelText('Comment'), 'Reeds')
    await userEvent.click(
      screen.getByRole('checkbox', { name: 'Also the 2 earlier alarms of this detection' })
    )
    await userEvent.click(button('Acknowledge'))
    await waitFor(() =>
      expect(
        sent(asked)
          .slice(1)
          .map(({ path, body }) => [path, (body as { comment: string }).comment])
      ).toEqual([
        ['/alarms/7/acknowledge', 'Reeds'],
        ['/alarms/6/acknowledge', 'Reeds'],
        ['/alarms/4/acknowledge', 'Reeds']
      ])
    )
  })

  test('when refused, says why in the form’s terms and keeps the text', async () => {
    show(alarm(), { refuse: 'Enter a comment: this alarm requires one.' })
    await userEvent.type(screen.getByLabelText('Comment'), 'Half a')
    await userEvent.click(button('Acknowledge'))
    expect((await screen.findByRole('alert')).textContent).toBe(
      'Enter a comment: this alarm requires one.'
    )
    expect(screen.getByLabelText('Comment')).toHaveProperty('value', 'Half a')
  })

  test('a comment alone does not acknowledge; an empty one cannot be added', async () => {
    const asked = show(alarm())
    const write = button('Add comment')
    expect(write).toHaveProperty('disabled', true)
    await userEvent.type(screen.getByLabelText('Comment'), '   ')
    expect(write).toHaveProperty('disabled', true)
    await userEvent.type(screen.getByLabelText('Comment'), 'On my way')
    await userEvent.click(write)
    await waitFor(() =>
      expect(sent(asked)).toMatchObject([
        { path: '/alarms/7/notes', body: { words: '   On my way' } }
      ])
    )
  })

  test('assigned to somebody of the site', async () => {
    const asked = show(alarm())
    await userEvent.click(button('Assign to'))
    await userEvent.click(await screen.findByText('Ruth'))
    await waitFor(() =>
      expect(sent(asked)).toMatchObject([{ path: '/alarms/7/hand', body: { to: 'Ruth' } }])
    )
  })

  test('can be closed once acknowledged, and then nothing more', async () => {
    const asked = show(alarm({ state: 'acknowledged' }))
    await userEvent.click(button('Close alarm'))
    await waitFor(() =>
      expect(sent(asked)).toMatchObject([{ path: '/alarms/7/close', body: { words: '' } }])
    )
    cleanup()
    show(alarm({ state: 'closed' }))
    expect(screen.queryByLabelText('Comment')).toBeNull()
  })

  test('offers a viewer nothing', () => {
    show(alarm(), { mayAct: false })
    expect(screen.queryByRole('button')).toBeNull()
    expect(screen.getByRole('heading', { name: /Gate line/ })).toBeTruthy()
  })
})

test('lists who did what, in order', async () => {
  const note = (id: number, what: AlarmNote['what'], words: string): AlarmNote => ({
    id,
    what,
    words,
    by: 'Ines',
    at: id * 1000
  })
  show(alarm(), {
    notes: [
      note(1, 'comment', 'Looks like a fox'),
      note(2, 'handed', 'Ruth'),
      note(3, 'acknowledged', ''),
      note(4, 'closed', 'It was one')
    ]
  })
  await screen.findByText(/Looks like/)
  const list = screen.getByRole('heading', { name: 'Log' }).nextElementSibling!
  expect(
    within(list as HTMLElement)
      .getAllByRole('listitem')
      .map((li) => li.textContent.replace(/^[\d:]+ /, ''))
  ).toEqual([
    'triggered',
    'Ines commented: “Looks like a fox”',
    'Ines assigned it to Ruth',
    'Ines acknowledged',
    'Ines closed it: “It was one”'
  ])
})

describe('the actions of an alarm', () => {
  test('says when there are none', () => {
    show(alarm())
    expect(screen.getByText('No actions.')).toBeTruthy()
  })

  test('lists those of the newest trigger with duration or reason; older ones in a line', () => {
    show(
      alarm({
        triggers: 2,
        deliveries: [
          delivery({ id: 1, trigger: 9 }),
          delivery({ id: 2, trigger: 9, state: 'pending', sentAt: null, name: 'Station' }),
          delivery({
            id: 3,
            trigger: 9,
            state: 'held',
            error: 'outside its schedule',
            name: 'Strobe'
          }),
          delivery({ id: 4, trigger: 9, state: 'failed', error: 'no answer', name: 'Hook' }),
          delivery({ id: 5, trigger: 8 }),
          delivery({ id: 6, trigger: 8, state: 'failed', error: 'no answer' }),
          delivery({ id: 7, trigger: null, does: 'off', kind: 'strobe', name: 'Strobe' })
        ]
      })
    )
    const [list] = screen.getAllByRole('list').filter((l) => l.className === 'alarm-effects')
    const words = within(list!)
      .getAllByRole('listitem')
      .map((li) => li.textContent.trim())
    expect(words.sort()).toEqual(
      [
        'E-mail to duty: delivered after 0.4 s',
        'Station: pending',
        'Strobe: skipped: outside its schedule',
        'Hook: failed: no answer'
      ].sort()
    )
    expect(
      [...document.querySelectorAll('summary')].map((s) => s.textContent.replace(/^[\d:]+ /, ''))
    ).toEqual(['an earlier trigger: 1 delivered, 1 failed', 'switched off: 1 delivered'])
  })
})
