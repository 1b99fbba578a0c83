/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals'
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ClipView } from '../../../core/api.ts'
import { evaluate, explainAll, type Setting } from '../../../core/detections/index.ts'
import { DetectionSchema, ScheduleSchema, type Detection } from '../../../core/formats/plan.ts'
import { parseWith } from '../../../core/schema/parse.ts'
import { spansOf, tracksFromRows, type TargetRow } from '../../../core/targets/tracks.ts'
import type { Choice, Contents, OnShow } from '../contexts.ts'
import type { Evaluation } from '../evaluation.ts'
import { Playhead } from '../playhead.ts'
import type { Selection } from '../selection.ts'
import { Shared } from '../Shared.tsx'
import { Timeline } from './Timeline.tsx'

/** Two who cross a line downwards, at 2 and 6 s of 10, and one who stops just before it: seen from the engine itself. */
const rows: TargetRow[] = Array.from({ length: 100 }, (_, i) =>
  [
    { id: 1, from: 0, y: (t: number) => 0.1 + 0.2 * t },
    { id: 2, from: 4, y: (t: number) => 0.1 + 0.2 * t },
    { id: 3, from: 0, y: (t: number) => Math.min(0.3, 0.1 + 0.1 * t) }
  ].flatMap(({ id, from, y }) => {
    const t = i / 10 - from
    return t < 0 || t > 4
      ? []
      : [
          {
            frame: i + 1,
            id,
            x: 0.2 * id,
            y: y(t),
            w: 0.1,
            h: 0.2,
            confidence: 1,
            cls: id === 3 ? 'animal' : 'person'
          } satisfies TargetRow
        ]
  })
).flat()
const tracks = tracksFromRows(rows, 10)
const start = Date.parse('2026-11-24T18:29:55Z')
const nights = parseWith(ScheduleSchema, {
  id: 'nights',
  name: 'Nights',
  week: { tue: [['18:30', '24:00']] }
})
const gate = parseWith(DetectionSchema, {
  id: 'gate',
  name: 'Gate',
  kind: 'line',
  line: [
    [0, 0.5],
    [1, 0.5]
  ]
})
const clip = {
  id: 'clip',
  name: 'Clip',
  state: 'ready',
  frames: 100,
  fps: 10,
  start
} as unknown as ClipView

const settingOf = (d: Detection): Setting => ({
  plan: { schedules: [nights], timeZone: 'UTC' },
  camera: { ignore: [], detections: [d] },
  fps: 10,
  start
})
let playhead: Playhead
let moments: Parameters<Choice['showMoment']>[]
/** In the place where the Bench has it; what is selected, and what is being dragged, may be said. */
const timeline = (
  d: Detection,
  { dragging = false, ...more }: { dragging?: boolean } & Partial<Evaluation & Selection> = {}
) => (
  <Shared
    contents={
      {
        view: { site: { id: 's', name: 'S', timeZone: 'UTC', position: null, inputs: [] } },
        placed: [{ camera: 'c', detection: d, position: 0 }],
        schedules: [nights]
      } as unknown as Contents
    }
    onShow={{ clip, playhead, spans: spansOf(tracks) } as unknown as OnShow}
    choice={
      {
        selection: { detection: d.id, target: null, frame: null, ...more },
        chooseDetection: () => {},
        showMoment: (...moment: Parameters<Choice['showMoment']>) => moments.push(moment)
      } as unknown as Choice
    }
    evaluation={
      {
        triggersOf: new Map([[d.id, evaluate(settingOf(d), tracks)]]),
        ladders: explainAll(settingOf(d), tracks, d.id),
        timed: new Map(),
        ...more
      } as unknown as Evaluation
    }
  >
    <Timeline clip={clip} dragging={dragging} />
  </Shared>
)
const left = (element: Element): number => parseFloat((element as HTMLElement).style.left)
const flags = (): HTMLElement[] => screen.queryAllByRole('button', { name: /^Trigger of Gate/ })

beforeEach(() => {
  playhead = new Playhead()
  playhead.setClip(10, 10)
  moments = []
})
afterEach(() => {
  cleanup()
  jest.restoreAllMocks()
})

test('shows a flag per trigger at its moment; pressing selects it', async () => {
  render(timeline(gate))
  const triggers = evaluate(settingOf(gate), tracks)
  expect(triggers.map(({ target }) => target)).toEqual([1, 2])
  expect(flags().map(left)).toEqual(triggers.map(({ time }) => time * 10))
  await userEvent.click(flags()[1]!)
  expect(moments).toEqual([['gate', 2, triggers[1]!.frame]])
})

test('shows a row per target, and near misses', async () => {
  const persons = parseWith(DetectionSchema, { ...gate, classes: ['animal'] })
  render(timeline(persons))
  expect(flags()).toEqual([])
  const misses = screen.getAllByRole('button', { name: /^Near miss/ })
  expect(misses.map((m) => m.getAttribute('aria-label')!.split(' ')[4])).toEqual(['1', '2'])
  const [first] = screen.getAllByRole('button', { name: /^person 1, 0\.0 to 4\.0 s/ })
  expect(first!.className).toContain('not-chosen')
  await userEvent.click(screen.getByRole('button', { name: /^animal 3, / }))
  expect(moments.at(-1)?.slice(0, 2)).toEqual(['gate', 3])
})

test('shades unarmed time, up to 18:30:00 at the site', () => {
  const { container } = render(
    timeline(parseWith(DetectionSchema, { ...gate, schedule: 'nights' }))
  )
  const [gap, ...others] = container.querySelectorAll<HTMLElement>('.disarmed')
  expect(others).toEqual([])
  expect([left(gap!), parseFloat(gap!.style.width)]).toEqual([0, 50])
  // Of the two triggers the one after that is left.
  expect(flags()).toHaveLength(1)
})

test('shades everything when switched off, without flags', () => {
  const { container } = render(timeline(parseWith(DetectionSchema, { ...gate, enabled: false })))
  expect(parseFloat(container.querySelector<HTMLElement>('.disarmed')!.style.width)).toBe(100)
  expect(flags()).toEqual([])
})

test('zooms around the moment shown, and back to the whole clip', async () => {
  render(timeline(gate))
  act(() => playhead.seek(2))
  const before = left(flags()[0]!)
  await userEvent.click(screen.getByRole('button', { name: 'Zoom in' }))
  // Twice as near: the moment on show keeps its place, what lies beside it moves away from it.
  const [at, away] = [left(flags()[0]!), left(flags()[1]!)]
  expect(away - at).toBeCloseTo(2 * 40, 0)
  await userEvent.click(screen.getByRole('button', { name: 'whole clip' }))
  expect(left(flags()[0]!)).toBe(before)
  expect(screen.queryByRole('button', { name: 'whole clip' })).toBeNull()
})

test('dragging the scale moves the moment; with Shift it makes a loop, which a click ends', async () => {
  const { container } = render(timeline(gate))
  const scale = container.querySelector<HTMLElement>('.scale')!
  scale.getBoundingClientRect = () => ({ left: 0, width: 1000 }) as DOMRect
  scale.hasPointerCapture = () => true
  fireEvent.pointerDown(scale, { clientX: 100 })
  fireEvent.pointerMove(scale, { clientX: 430 })
  expect(playhead.time).toBeCloseTo(4.3, 6)
  fireEvent.pointerDown(scale, { clientX: 600, shiftKey: true })
  fireEvent.pointerMove(scale, { clientX: 200, shiftKey: true })
  expect(playhead.loop).toEqual([2, 6])
  await userEvent.click(screen.getByRole('button', { name: /^Looping 2\.0 to 6\.0 s/ }))
  expect(playhead.loop).toBeNull()
})

test('draws triggers without buttons while a shape is dragged', () => {
  render(timeline(gate, { dragging: true }))
  expect(screen.getByRole('img', { name: '2 triggers' })).toBeDefined()
  expect(flags()).toEqual([])
})
