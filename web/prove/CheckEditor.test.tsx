/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ClipView } from '../../core/api.ts'
import { CheckSchema, type Check } from '../../core/formats/check.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { bareView } from '../testing/bareView.ts'
import { choose } from '../testing/choose.ts'
import { inApp } from '../testing/inApp.tsx'
import { smallSite } from '../testing/smallSite.ts'
import { lineAt } from '../testing/walkers.ts'
import { CheckEditor } from './CheckEditor.tsx'

const clip = (id: string, seconds: number, more: Partial<ClipView> = {}): ClipView =>
  ({
    id,
    name: `Clip ${id}`,
    state: 'ready',
    fps: 10,
    frames: seconds * 10,
    start: Date.parse('2026-11-20T06:00:00Z'),
    ...more
  }) as ClipView

/** A camera without a scene: nothing can be walked on it but by a person on site. */
const byPerson = (more: object = {}): Check =>
  parseWith(CheckSchema, {
    id: 'one',
    name: 'Across the gate',
    detection: 'gate',
    about: 'passes',
    side: 'inside',
    by: { how: 'person', words: 'Walk to the gate and back.', seconds: 30 },
    at: Date.parse('2026-11-24T08:30:00Z'),
    expect: { what: 'trigger', from: 2, to: 25 },
    effects: [{ endpoint: 'one', acts: true }],
    ...more
  })

let clips: ClipView[]
let refusal: { status: number; body: unknown } | null
let asked: Asked[]
let done: number

beforeEach(() => {
  clips = [clip('a', 40), clip('b', 12.5), clip('c', 9, { state: 'analysing' })]
  refusal = null
  done = 0
  asked = answerWith(({ method, path }) =>
    method === 'GET' && path === '/cameras/yard'
      ? { body: { ...bareView(), clips } }
      : (refusal ?? { body: { version: 4 } })
  )
})
afterEach(cleanup)

const show = async (check: Check): Promise<void> => {
  render(
    inApp(
      <CheckEditor
        kept={{ camera: 'yard', check, last: null, version: 3, changedAt: 0 }}
        scene={null}
        painted={false}
        site={smallSite()}
        detection={lineAt('gate', 0.5)}
        onDone={() => done++}
      />
    )
  )
  await waitFor(() => expect(asked).not.toEqual([]))
}
const press = (name: string) => userEvent.click(screen.getByRole('button', { name }))
/** What stands under a name; its label holds the chosen value and the unit as well. */
const fieldOf = (name: string): HTMLElement =>
  screen.getByText(name).closest('.field')!.querySelector('input')!
/** Into a field of numbers, which takes what was typed when it is left. */
const number = (label: string, value: string): void => {
  const field = fieldOf(label)
  fireEvent.change(field, { target: { value } })
  fireEvent.blur(field)
}
const saved = (): { check: Check; version: number } =>
  asked.findLast(({ method }) => method === 'PUT')!.body
const save = async (): Promise<Check> => {
  await press('Save')
  await waitFor(() => expect(done).toBe(1))
  expect(saved().version).toBe(3)
  return saved().check
}

test('what a person does is written, and saved under its version', async () => {
  const check = byPerson()
  await show(check)
  await userEvent.clear(screen.getByLabelText('Name'))
  await userEvent.type(screen.getByLabelText('Name'), 'By the hedge')
  await userEvent.clear(screen.getByLabelText('What to do on site'))
  await userEvent.type(screen.getByLabelText('What to do on site'), 'Crawl along the hedge.')
  number('Not after', '18.5')
  expect(await save()).toEqual({
    ...check,
    name: 'By the hedge',
    by: { how: 'person', words: 'Crawl along the hedge.', seconds: 30 },
    expect: { what: 'trigger', from: 2, to: 18.5 }
  })
})

test('nothing must trigger: no window, no actions; a trigger again has the whole walk', async () => {
  await show(byPerson())
  await choose(fieldOf('Expected'), 'Must not trigger')
  expect(screen.queryByText('Not before')).toBeNull()
  await press('Save')
  await waitFor(() => expect(done).toBe(1))
  expect(saved().check).toMatchObject({
    expect: { what: 'silence' },
    side: 'outside',
    effects: []
  })
  await choose(fieldOf('Expected'), 'A trigger')
  await press('Save')
  await waitFor(() => expect(done).toBe(2))
  expect(saved().check).toMatchObject({
    expect: { what: 'trigger', from: 0, to: 30 },
    side: 'inside'
  })
})

test('a clip: only those that are analysed, whole at first, at the time that it was taken', async () => {
  await show(byPerson())
  await userEvent.click(await screen.findByText('Part of a clip'))
  await userEvent.click(screen.getByRole('combobox', { name: 'Clip' }))
  expect(screen.queryByTitle('Clip c')).toBeNull()
  await userEvent.click((await screen.findAllByTitle('Clip b')).at(-1)!)
  // Its own clock counts: there is no time to choose.
  expect(screen.getByText('Site time').closest('.field')!.hasAttribute('hidden')).toBe(true)
  expect(await save()).toMatchObject({
    by: { how: 'clip', clip: 'b', from: 0, to: 12 },
    at: Date.parse('2026-11-20T06:00:00Z'),
    expect: { what: 'trigger', from: 0, to: 12 }
  })
})

test('a stretch of a clip: a trigger is expected within it, counted from where it starts', async () => {
  await show(byPerson())
  await userEvent.click(await screen.findByText('Part of a clip'))
  number('From', '10')
  number('To', '25.5')
  expect(await save()).toMatchObject({
    by: { how: 'clip', clip: 'a', from: 10, to: 25.5 },
    expect: { from: 0, to: 15.5 }
  })
})

test('a stretch that ends before it starts, and a window, are refused with the reason', async () => {
  await show(byPerson())
  number('Not after', '1')
  await press('Save')
  expect((await screen.findByRole('alert')).textContent).toMatch(/window/)
  expect(fieldOf('Not after')).toHaveProperty('value', '1.0')
  await userEvent.click(await screen.findByText('Part of a clip'))
  number('From', '30')
  number('To', '20')
  await press('Save')
  await waitFor(() => expect(screen.getByRole('alert').textContent).toMatch(/part|stretch/))
  expect([done, asked.filter(({ method }) => method === 'PUT')]).toEqual([0, []])
})

test('a clip that is gone stays named, as it is what the check is of', async () => {
  clips = []
  await show(
    byPerson({ by: { how: 'clip', clip: 'gone', from: 0, to: 20 }, name: 'On a clip', effects: [] })
  )
  expect(screen.getByText('Part of a clip')).toBeTruthy()
  expect(screen.getByText('gone')).toBeTruthy()
  expect(await save()).toMatchObject({ by: { how: 'clip', clip: 'gone', from: 0, to: 20 } })
})

test('without a scene and without clips there is nothing to choose between', async () => {
  clips = []
  await show(byPerson())
  expect(screen.queryByText('Part of a clip')).toBeNull()
  expect(screen.getByLabelText('What to do on site')).toBeTruthy()
})

test('what the server refuses is said, and what was typed stays; Cancel asks nothing', async () => {
  refusal = { status: 409, body: { code: 'conflict', said: 'Somebody has changed it.' } }
  await show(byPerson())
  await userEvent.type(screen.getByLabelText('Name'), ' twice')
  await press('Save')
  expect(await screen.findByText('Somebody has changed it.')).toBeTruthy()
  expect(screen.getByLabelText('Name')).toHaveProperty('value', 'Across the gate twice')
  expect(done).toBe(0)
  asked.length = 0
  await press('Cancel')
  expect([done, asked.filter(({ method }) => method === 'PUT')]).toEqual([1, []])
})
