/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor } from '@testing-library/react'
import type { AlarmView, DeliveryView } from '../../core/api.ts'
import type { FoundTrigger } from '../../core/watch/search.ts'
import { answerWith } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { AlarmEvidence } from './AlarmEvidence.tsx'

afterEach(cleanup)

/** Of a trigger each, as far as it is looked at here: what has come of it. */
const recording = (id: number): DeliveryView =>
  ({
    id,
    kind: 'recording',
    state: 'sent',
    name: 'Recording',
    createdAt: 60_000 * id
  }) as DeliveryView
/** Newest first. */
const alarm = (triggers: number): AlarmView =>
  ({
    id: 7,
    triggers,
    deliveries: Array.from({ length: triggers }, (_, i) => recording(triggers - i))
  }) as AlarmView
const trigger = (id: number): FoundTrigger =>
  ({ id, name: 'Yard', kind: 'intrusion', at: 60_000 * id, alarm: 7, clip: false }) as FoundTrigger
const films = (): string[] =>
  [...document.querySelectorAll('video')].map((film) => film.getAttribute('src')!)
const film = (id: number): string => `/api/sites/s/deliveries/${id}/files/recording.mp4`

test('of many films it shows the first, whatever comes, and the newest ones', async () => {
  let triggers = 9
  const asked = answerWith(({ path }) => {
    if (path.startsWith('/triggers?alarm')) return { body: { triggers: [trigger(triggers)] } }
    if (path.endsWith('/files'))
      return { body: { files: [{ name: 'recording.mp4', type: 'video/mp4' }], recording: null } }
    return { status: 404, body: { code: 'not-found', said: 'Nothing' } }
  })
  const { rerender } = render(inApp(<AlarmEvidence alarm={alarm(9)} />))
  await waitFor(() => expect(films()).toEqual([1, 9, 8, 7, 6, 5].map(film)))
  // A device gives one after the other: the first one asked for comes first.
  expect(asked.find(({ path }) => path.endsWith('/files'))?.path).toBe('/deliveries/1/files')

  triggers = 10
  const first = document.querySelector('video')
  rerender(inApp(<AlarmEvidence alarm={alarm(10)} />))
  await waitFor(() => expect(films()).toEqual([1, 10, 9, 8, 7, 6].map(film)))
  expect(document.querySelector('video')).toBe(first)
})

test('says why there is none when it could not be asked for', async () => {
  answerWith(() => ({ status: 503, body: { code: 'unavailable', said: 'The database is away' } }))
  render(inApp(<AlarmEvidence alarm={alarm(1)} />))
  expect((await screen.findByRole('alert')).textContent).toContain('The database is away')
})
