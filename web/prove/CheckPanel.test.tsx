/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { useLocation } from 'react-router'
import { CheckSchema, type Check } from '../../core/formats/check.ts'
import type { Verdict } from '../../core/proving/judge.ts'
import type { ProvingView, ResultView } from '../../core/proving/views.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { smallSite } from '../testing/smallSite.ts'
import { lineAt } from '../testing/walkers.ts'
import { CheckPanel } from './CheckPanel.tsx'

const check = (by: Check['by'], more: object = {}): Check =>
  parseWith(CheckSchema, {
    id: 'one',
    name: 'Across the gate',
    detection: 'gate',
    about: 'passes',
    by,
    at: Date.parse('2026-11-24T08:30:00Z'),
    expect: { what: 'trigger', from: 2, to: 4.5 },
    ...more
  })
const onClip = (more: object = {}): Check =>
  check({ how: 'clip', clip: 'clip-7', from: 0, to: 20 }, more)
const byPerson = (): Check =>
  check({ how: 'person', words: 'Walk to the gate and back.', seconds: 30 })

const verdict = (more: Partial<Verdict> = {}): Verdict => ({
  outcome: 'passed',
  sentence: 'It triggered after 3.1 s.' as never,
  seen: [],
  frame: 31,
  time: 3.1,
  readings: [],
  effects: [],
  hits: 1,
  misses: 0,
  false: 0,
  ...more
})

let asked: Asked[]
let result: Verdict
/** What the server answers to what is changed; left out: that it is done. */
let refusal: { status: number; body: unknown } | null
let ran: number
let edits: boolean[]

beforeEach(() => {
  result = verdict()
  refusal = null
  ran = 0
  edits = []
  asked = answerWith(({ method, path }) => {
    if (path.endsWith('/result')) return { body: { run: 1, at: 1, settings: '', verdict: result } }
    if (method === 'DELETE') return refusal ?? { body: { version: 4 } }
    return refusal ?? { body: {} }
  })
})
afterEach(cleanup)

function Address(): ReactNode {
  const { pathname, search } = useLocation()
  return <p data-testid="address">{pathname + search}</p>
}
const where = (): string => screen.getByTestId('address').textContent
const show = (of: Check, last: Partial<ResultView> | null = null): void => {
  render(
    inApp(
      <>
        <Address />
        <CheckPanel
          kept={{
            camera: 'yard',
            check: of,
            last: last && {
              run: 1,
              passed: true,
              current: true,
              sentence: 'It triggered after 3.1 s.',
              at: 1,
              ...last
            },
            version: 3,
            changedAt: 0
          }}
          view={{ scenes: {} } as ProvingView}
          site={smallSite()}
          detection={lineAt('gate', 0.5)}
          editing={false}
          onEdit={(on) => edits.push(on)}
          onRun={() => ran++}
          running={false}
        />
      </>,
      '/prove'
    )
  )
}
const outcome = (): string => document.querySelector('.outcome')!.textContent
const changes = () => asked.filter(({ method }) => method !== 'GET')

test('says what is expected within which seconds, and that it has not been run', () => {
  show(
    onClip({
      effects: [
        { endpoint: 'one', acts: true },
        { endpoint: 'two', acts: false }
      ]
    })
  )
  expect(outcome()).toContain('from 2.0 to 4.5 s')
  expect(outcome()).toContain('actions: 1 ran, 1 did not')
  expect(outcome()).toContain('Not run yet.')
  // Its time is the site's.
  expect(screen.getByText(/24 Nov 2026, 08:30/)).toBeTruthy()
})

test('a result of other settings says that it has to be run again', () => {
  show(onClip(), { current: false })
  expect(outcome()).toContain('Settings changed since. Run it again.')
  expect(document.querySelector('.outcome')!.className).toBe('outcome old')
})

test('several triggers are listed with their times', async () => {
  result = verdict({ seen: [{ time: 2.6 }, { time: 3.14 }] as never })
  show(onClip(), { passed: false })
  await waitFor(() => expect(outcome()).toContain('2 triggers: 2.6 s, 3.1 s.'))
  expect(document.querySelector('.outcome')!.className).toBe('outcome failed')
})

test('shows which actions ran, and why one did not', async () => {
  const effect = { expected: true, acts: true, wrong: null }
  result = verdict({
    effects: [
      { ...effect, endpoint: 'a', name: 'Pop-up' },
      { ...effect, endpoint: 'b', name: 'Siren', expected: false, acts: false },
      { ...effect, endpoint: 'c', name: 'Mail', wrong: 'outside its hours' }
    ]
  })
  show(onClip(), {})
  const effects = within(await screen.findByRole('region', { name: 'Actions' }))
  expect(effects.getAllByRole('listitem').map((li) => li.textContent.trim())).toEqual([
    expect.stringContaining('Pop-up: ran'),
    expect.stringContaining('Siren: did not run, as expected'),
    expect.stringContaining('Mail: outside its hours')
  ])
})

test('a check on a clip is run, and opened on the Bench where its result looks', async () => {
  show(onClip(), {})
  await userEvent.click(screen.getByRole('button', { name: /Run/ }))
  expect(ran).toBe(1)
  expect(screen.queryByRole('button', { name: 'Walk live' })).toBeNull()
  await userEvent.click(screen.getByRole('button', { name: 'Open on the Bench' }))
  expect(where()).toBe('/bench/yard?clip=clip-7&detection=gate&frame=31')
})

test('what a person does is walked live, and neither run nor opened', async () => {
  show(byPerson())
  expect(screen.getByText('Walk to the gate and back.')).toBeTruthy()
  for (const name of [/^Run/, /Bench/]) expect(screen.queryByRole('button', { name })).toBeNull()
  await userEvent.click(screen.getByRole('button', { name: 'Walk live' }))
  expect(where()).toBe('/prove/walk?camera=yard&check=one')
  await userEvent.click(screen.getByRole('button', { name: /Edit/ }))
  expect(edits).toEqual([true])
})

test('is deleted under its version, and comes back under the one after', async () => {
  const kept = onClip()
  show(kept)
  await userEvent.click(screen.getByRole('button', { name: 'Delete Across the gate' }))
  await screen.findByText('Across the gate deleted')
  await userEvent.click(screen.getByRole('button', { name: 'Undo' }))
  await waitFor(() => expect(screen.queryByText('Across the gate deleted')).toBeNull())
  expect(changes()).toEqual([
    { method: 'DELETE', path: '/cameras/yard/checks/one?version=3', body: undefined },
    { method: 'PUT', path: '/cameras/yard/checks/one', body: { check: kept, version: 4 } }
  ])
})

test('why it cannot be deleted, or cannot come back, is said and stays', async () => {
  refusal = { status: 409, body: { code: 'conflict', said: 'Somebody has changed it.' } }
  show(onClip())
  await userEvent.click(screen.getByRole('button', { name: 'Delete Across the gate' }))
  expect(await screen.findByText('Somebody has changed it.')).toBeTruthy()
  refusal = null
  await userEvent.click(screen.getByRole('button', { name: 'Delete Across the gate' }))
  await screen.findByText('Across the gate deleted')
  refusal = { status: 503, body: { code: 'unavailable', said: 'The database is away.' } }
  await userEvent.click(screen.getByRole('button', { name: 'Undo' }))
  expect(await screen.findByText('The database is away.')).toBeTruthy()
  await waitFor(() => expect(screen.queryByText('Across the gate deleted')).toBeNull())
  expect(screen.getByText('The database is away.')).toBeTruthy()
})
