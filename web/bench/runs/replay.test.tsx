/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState, type ReactNode } from 'react'
import type { ClipView, RealActionsView } from '../../../core/api.ts'
import { answerWith, type Asked } from '../../testing/answers.ts'
import { inApp } from '../../testing/inApp.tsx'
import { Playhead } from '../playhead.ts'
import { RealActions } from './RealActions.tsx'
import { useRunAsLive } from './useRunAsLive.ts'

afterEach(cleanup)

function Replay(): ReactNode {
  const [playhead] = useState(() => new Playhead())
  const { run, asking, answer } = useRunAsLive({ id: 'c' } as ClipView, playhead, () => {})
  return (
    <>
      <button onClick={() => run(10)}>Replay</button>
      {asking && <RealActions asking={asking} onAnswer={answer} />}
    </>
  )
}

async function replayed(real: RealActionsView['real'], press?: string): Promise<Asked[]> {
  const asked = answerWith(({ path }) => ({
    body: path.endsWith('/real-actions')
      ? { real }
      : { id: 'r', clip: 'c', state: 'finished', at: 1, seconds: 1, triggers: [] }
  }))
  render(inApp(<Replay />))
  await userEvent.click(screen.getByRole('button', { name: 'Replay' }))
  if (press) await userEvent.click(await screen.findByRole('button', { name: press }))
  return asked
}
const started = (asked: readonly Asked[]) => asked.filter(({ method }) => method === 'POST')
const siren = { id: 's', name: 'Yard siren', kind: 'buzzer' } as const

test('starts at once with simulators only', async () => {
  const asked = await replayed([])
  await waitFor(() =>
    expect(started(asked)).toEqual([
      { method: 'POST', path: '/clips/c/runs', body: { speed: 10, hold: false } }
    ])
  )
})

test('names real actions, and starts nothing before an answer', async () => {
  const asked = await replayed([siren])
  expect((await screen.findByText('Yard siren')).parentElement!.textContent).toBe(
    'Yard siren sounds a buzzer'
  )
  expect(started(asked)).toEqual([])
})

test.each([
  ['Replay with them held', [{ speed: 10, hold: true }]],
  ['Replay and run them', [{ speed: 10, hold: false }]],
  ['Cancel', []]
])('%s', async (press, bodies) => {
  const asked = await replayed([siren], press)
  await waitFor(() => expect(started(asked).map(({ body }) => body)).toEqual(bodies))
  expect(screen.queryByRole('dialog', { name: /real actions/ })).toBeNull()
})
