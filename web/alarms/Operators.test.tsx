/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals'
import { act, cleanup, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { useLocation } from 'react-router'
import { answerWith, type Asked } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { Operators } from './Operators.tsx'

/** What the server tells, said by the test. */
class Told extends EventTarget {
  static now: Told
  static open = 0
  constructor(readonly path: string) {
    super()
    Told.now = this
    Told.open++
  }
  close(): void {
    Told.open--
  }
}
const tell = (what: string, data: object): void =>
  act(() => {
    Told.now.dispatchEvent(new MessageEvent(what, { data: JSON.stringify(data) }))
  })
const popup = (id: number, alarm: number | null, words: string, clip = false): void =>
  tell('popup', { id, alarm, clip, said: words, sound: 'none' })

const Address = (): ReactNode => {
  const { pathname, search } = useLocation()
  return <output>{pathname + search}</output>
}
let waiting: number[]
let asked: Asked[]
beforeEach(() => {
  Object.assign(globalThis, { EventSource: Told })
  waiting = []
  asked = answerWith(() => ({
    body: {
      alarms: waiting.map((id) => ({ id, state: 'waiting' })),
      more: false,
      waiting: waiting.length
    }
  }))
  render(
    inApp(
      <>
        <Operators />
        <Address />
      </>
    )
  )
})
afterEach(cleanup)

test('shows a pop-up, confirms it to the server, and leads to its alarm', async () => {
  waiting = [4]
  popup(11, 4, 'Gate: somebody crossed')
  const words = screen.getByRole('button', { name: /Gate: somebody crossed/ })
  expect(words.textContent).not.toContain('clip')
  expect(asked.filter(({ method }) => method === 'POST')).toMatchObject([
    { path: '/deliveries/11/shown' }
  ])
  await userEvent.click(words)
  expect(screen.getByRole('status').textContent).toBe('/watch?alarm=4')
})

test('names tests and clips; a test leads to no alarm', async () => {
  popup(1, null, 'Works')
  const words = screen.getByRole('button', { name: /Works \(a test\)/ })
  await userEvent.click(words)
  expect(screen.getByRole('status').textContent).toBe('/watch')
  waiting = [5]
  popup(2, 5, 'Yard', true)
  expect(screen.getByRole('button', { name: /Yard \(from a clip\)/ })).toBeTruthy()
})

test('shows the newest in words and the others as a number, one per alarm, and closes all at once', async () => {
  waiting = [1, 2]
  popup(1, 1, 'First')
  popup(2, 2, 'Second')
  popup(3, 1, 'First again')
  expect(screen.getByRole('button', { name: /First again/ })).toBeTruthy()
  expect(screen.getByText('+1')).toBeTruthy()
  await userEvent.click(screen.getByRole('button', { name: 'Close 2 pop-ups' }))
  expect(screen.queryByRole('button')).toBeNull()
})

test('counts new alarms again when one arrives', async () => {
  await waitFor(() => expect(asked.length).toBeGreaterThan(0))
  expect(screen.queryByRole('link')).toBeNull()
  waiting = [1, 2, 3]
  tell('alarm', {})
  expect((await screen.findByRole('link')).textContent).toContain('3 new')
})

test('stops listening when left', () => {
  const { open } = Told
  cleanup()
  expect(Told.open).toBe(open - 1)
})

test('sounds again and again until the alarm is acknowledged, whether its pop-up is closed or not', async () => {
  let tones = 0
  class Speaker {
    currentTime = 0
    resume = async (): Promise<void> => {}
    createOscillator = () => {
      tones++
      return {
        frequency: {},
        connect: () => ({ connect: () => {} }),
        start: () => {},
        stop: () => {}
      }
    }
    createGain = () => ({
      gain: { setValueAtTime: () => {}, exponentialRampToValueAtTime: () => {} },
      connect: () => {}
    })
  }
  Object.assign(globalThis, { AudioContext: Speaker })
  jest.useFakeTimers()
  try {
    waiting = [4]
    tell('popup', { id: 11, alarm: 4, clip: false, said: 'Gate', sound: 'alarm' })
    const once = tones
    expect(once).toBeGreaterThan(0)
    tell('alarm', {})
    await act(() => jest.advanceTimersByTimeAsync(1000))
    act(() => screen.getByRole('button', { name: /^Close/ }).click())
    await act(() => jest.advanceTimersByTimeAsync(20_000))
    expect(tones).toBe(3 * once)
    // Somebody has acknowledged it.
    waiting = []
    tell('alarm', {})
    await act(() => jest.advanceTimersByTimeAsync(1000))
    await act(() => jest.advanceTimersByTimeAsync(60_000))
    expect(tones).toBe(3 * once)
    // A chime is heard once.
    waiting = [5]
    tell('popup', { id: 12, alarm: 5, clip: false, said: 'Gate', sound: 'chime' })
    tell('alarm', {})
    const chimed = tones
    await act(() => jest.advanceTimersByTimeAsync(60_000))
    expect(tones).toBe(chimed)
  } finally {
    jest.useRealTimers()
  }
})
