import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { said } from '../../core/messages/said.ts'
import fc from 'fast-check'
import type { BenchView } from '../../core/api.ts'
import { ApiError } from '../../core/apiError.ts'
import { DetectionSchema, type Detection } from '../../core/formats/plan.ts'
import { canonical } from '../../core/history/states.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import type { StepMemory } from '../sync/steps.ts'
import type { Saver } from '../sync/saver.ts'
import { BenchDocument, type Value } from './document.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { bareView } from '../testing/bareView.ts'

const line = (id: string, name = id): Detection =>
  parseWith(DetectionSchema, {
    id,
    name,
    kind: 'line',
    line: [
      [0.1, 0.5],
      [0.9, 0.5]
    ]
  })

/**
 * Saves in memory, by the server's rules: a save must name the version that is saved
 * (server/bench/bench.test.ts tests those).
 */
class Memory implements Saver {
  /** By what stands last in the path; `a actions` of a detection. */
  readonly held = new Map<string, { version: number; value: unknown }>()
  down = false

  put = (path: string, body: object, version: number): Promise<number> =>
    this.take(path, body, version)
  remove = (path: string, version: number): Promise<number> => this.take(path, null, version)

  private async take(path: string, value: object | null, version: number): Promise<number> {
    if (this.down) throw new ApiError(0, { code: 'internal', said: 'The server cannot be reached' })
    const key = /([^/]+(?:\/actions)?)$/.exec(path)![1]!.replace('/', ' ')
    const now = this.held.get(key)
    if ((now?.version ?? 0) !== version)
      throw new ApiError(409, {
        code: 'conflict',
        said: 'changed',
        current: {
          ...(now!.value ?? { deleted: true }),
          version: now!.version,
          changedAt: 0
        }
      })
    this.held.set(key, { version: version + 1, value })
    return version + 1
  }
}

const view = (detections: BenchView['detections'] = []): BenchView => ({
  ...bareView(),
  detections
})
const names = (d: BenchDocument) => d.getState().detections.map((p) => p.detection.name)
const settle = () => jest.advanceTimersByTimeAsync(5000)

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())

describe('the document of the Bench', () => {
  test('saves edits automatically, once per burst', async () => {
    const memory = new Memory()
    const document = new BenchDocument(view(), null, memory)
    document.add([line('a')])
    for (let i = 1; i <= 20; i++)
      document.edit(line('a', `Name ${i}`), said('edits.text', 'Rename'))
    expect(document.getState().status).toBe('saving')
    await settle()
    expect(document.getState().status).toBe('saved')
    expect(memory.held.get('a')).toMatchObject({
      version: 1,
      value: { detection: { name: 'Name 20' } }
    })
  })

  test('undoing a deletion restores it under its version', async () => {
    const memory = new Memory()
    const document = new BenchDocument(view(), null, memory)
    document.add([line('a')])
    await settle()
    document.remove('a')
    await settle()
    expect(memory.held.get('a')).toMatchObject({ version: 2, value: null })
    document.undo()
    await settle()
    expect(memory.held.get('a')).toMatchObject({ version: 3, value: { detection: { id: 'a' } } })
    expect(document.getState().conflict).toBeNull()
  })

  test('a drag is one step', () => {
    const document = new BenchDocument(view(), null, new Memory())
    document.add([line('a')])
    document.show(line('a', 'on the way'))
    document.show(line('a', 'there'))
    document.commitDrag(said('edits.text', 'Move'))
    expect(names(document)).toEqual(['there'])
    document.undo()
    expect(names(document)).toEqual(['a'])
    document.redo()
    expect(names(document)).toEqual(['there'])
  })

  test('loses nothing while the server is away, and saves when it is back', async () => {
    const memory = new Memory()
    memory.down = true
    const document = new BenchDocument(view(), null, memory)
    document.add([line('a')])
    await settle()
    expect(document.getState()).toMatchObject({
      status: 'waiting',
      error: 'The server cannot be reached'
    })
    memory.down = false
    await settle()
    expect(document.getState()).toMatchObject({ status: 'saved', error: null })
    expect(memory.held.get('a')?.version).toBe(1)
  })

  test.each(['mine', 'theirs'] as const)('a conflict, resolved with %s', async (whose) => {
    const memory = new Memory()
    const [one, two] = [
      new BenchDocument(view(), null, memory),
      new BenchDocument(view(), null, memory)
    ]
    one.add([line('a')])
    await settle()
    two.adopt(
      view([
        {
          detection: line('a'),
          position: 0,
          version: 1,
          changedAt: 0,
          actions: { actions: NO_ACTIONS, version: 0, changedAt: 0 }
        }
      ])
    )
    one.edit(line('a', 'theirs'), said('edits.text', 'Rename'))
    await settle()
    two.edit(line('a', 'mine'), said('edits.text', 'Rename'))
    await settle()
    expect(two.getState().conflict).toMatchObject({
      name: 'mine',
      theirs: { detection: { name: 'theirs' } },
      version: 2
    })
    expect(names(two)).toEqual(['mine'])
    expect(two.getState().status).toBe('waiting')
    two.resolveConflict(whose)
    await settle()
    expect(names(two)).toEqual([whose])
    expect(memory.held.get('a')).toMatchObject({ value: { detection: { name: whose } } })
    if (whose === 'theirs') two.undo()
    await settle()
    expect(memory.held.get('a')).toMatchObject({ value: { detection: { name: 'mine' } } })
  })

  test('takes in changes of another window, but not over what is being edited here', async () => {
    const memory = new Memory()
    const document = new BenchDocument(view(), null, memory)
    document.add([line('a')])
    await settle()
    document.edit(line('a', 'mine'), said('edits.text', 'Rename'))
    const theirs = {
      position: 1,
      changedAt: 0,
      actions: { actions: NO_ACTIONS, version: 0, changedAt: 0 }
    }
    document.adopt(
      view([
        { ...theirs, detection: line('a', 'newer'), version: 9 },
        { ...theirs, detection: line('b'), version: 1 }
      ])
    )
    expect(names(document)).toEqual(['mine', 'b'])
  })

  test('undo returns through any edits to each state, and redo forward, also across a reload', () => {
    const edit = fc.oneof(
      fc.record({ do: fc.constant('add' as const), id: fc.constantFrom('a', 'b', 'c', 'd') }),
      fc.record({ do: fc.constant('remove' as const), id: fc.constantFrom('a', 'b', 'c', 'd') }),
      fc.record({
        do: fc.constant('edit' as const),
        id: fc.constantFrom('a', 'b', 'c', 'd'),
        name: fc.constantFrom('one', 'two', 'three')
      }),
      fc.record({
        do: fc.constant('link' as const),
        id: fc.constantFrom('a', 'b'),
        linked: fc.boolean()
      }),
      fc.record({ do: fc.constant('area' as const), x: fc.constantFrom(0.3, 0.5) }),
      fc.record({
        do: fc.constant('order' as const),
        ids: fc.shuffledSubarray(['a', 'b', 'c', 'd'])
      }),
      fc.record({ do: fc.constant('all' as const), name: fc.constantFrom('one', 'two', null) })
    )
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 30 }), fc.nat(), (edits, reloadAt) => {
        let kept: string | null = null
        const memory: StepMemory<Value> = {
          load: () =>
            kept === null ? null : (JSON.parse(kept) as ReturnType<StepMemory<Value>['load']>),
          save: (steps) => void (kept = JSON.stringify(steps))
        }
        let document = new BenchDocument(view(), memory, new Memory())
        const shown = () =>
          canonical([
            document.getState().detections,
            [...document.getState().actions].sort(),
            document.getState().scene
          ])
        const reload = (): void => {
          const { detections, actions, scene } = document.getState()
          const held = view(
            detections.map((p) => ({
              ...p,
              version: 1,
              changedAt: 0,
              actions: {
                actions: actions.get(p.detection.id) ?? NO_ACTIONS,
                version: actions.has(p.detection.id) ? 1 : 0,
                changedAt: 0
              }
            }))
          )
          // A link outlives its deleted detection at the server, which says so.
          const dormant = [...actions]
            .filter(([id]) => !document.detection(id))
            .map(([id, a]) => ({ id, actions: { actions: a, version: 1, changedAt: 0 } }))
          document = new BenchDocument(
            { ...held, dormant, scene: { ...scene, version: 2, changedAt: 0 } },
            memory,
            new Memory()
          )
        }
        const states = [shown()]
        for (const e of edits) {
          if (e.do === 'add' && !document.detection(e.id)) document.add([line(e.id)])
          else if (e.do === 'remove') document.remove(e.id)
          else if (e.do === 'edit' && document.detection(e.id))
            document.edit(line(e.id, e.name), said('edits.text', 'Rename'))
          else if (e.do === 'link' && document.detection(e.id))
            document.link([e.id], 'mail', e.linked, said('edits.text', 'Link'))
          else if (e.do === 'area')
            document.editScene(
              {
                marks: null,
                ignore: [
                  [
                    [0, 0],
                    [e.x, 0],
                    [0, 1]
                  ]
                ]
              },
              said('edits.text', 'Draw an area')
            )
          else if (e.do === 'order') document.order(e.ids, said('edits.text', 'Reorder'))
          else if (e.do === 'all')
            document.editAll(
              document.getState().detections.map(({ detection: d }) => ({
                id: d.id,
                detection: e.name === null ? null : line(d.id, e.name)
              })),
              said('edits.text', 'Show all')
            )
          if (shown() !== states[states.length - 1]) states.push(shown())
        }
        states
          .slice(0, -1)
          .reverse()
          .forEach((state, i) => {
            if (i === reloadAt % states.length) reload()
            document.undo()
            expect(shown()).toBe(state)
          })
        for (const state of states.slice(1)) {
          document.redo()
          expect(shown()).toBe(state)
        }
      }),
      { numRuns: 200 }
    )
  })

  test('after a reload, an unsaved step can be redone; a change by somebody else ends undo', async () => {
    let kept: ReturnType<StepMemory<Value>['load']> = null
    const memory: StepMemory<Value> = {
      load: () => kept,
      save: (steps) => void (kept = structuredClone(steps))
    }
    const held = (name: string) =>
      view([
        {
          detection: line('a', name),
          position: 0,
          version: 1,
          changedAt: 0,
          actions: { actions: NO_ACTIONS, version: 0, changedAt: 0 }
        }
      ])
    const first = new BenchDocument(held('one'), memory, new Memory())
    first.edit(line('a', 'two'), said('edits.text', 'Rename to two'))
    first.edit(line('a', 'three'), said('edits.text', 'Rename to three'))
    const unsaved = new BenchDocument(held('two'), memory, new Memory())
    expect(unsaved.getState()).toMatchObject({ undo: 'Rename to two', redo: 'Rename to three' })
    unsaved.redo()
    expect(names(unsaved)).toEqual(['three'])
    const changed = new BenchDocument(held('somebody else’s'), memory, new Memory())
    expect(changed.getState()).toMatchObject({ undo: null, redo: null })
  })

  test('restoring an earlier state is one step: later things go, deleted ones return', async () => {
    const document = new BenchDocument(view(), null, new Memory())
    document.add([line('a'), line('b')])
    document.link(['a', 'b'], 'mail', true, said('edits.text', 'Link'))
    const { detections, schedules, actions, scene } = document.getState()
    document.remove('a')
    document.add([line('c')])
    document.editScene(
      {
        marks: null,
        ignore: [
          [
            [0, 0],
            [1, 0],
            [0, 1]
          ]
        ]
      },
      said('edits.text', 'Draw an area')
    )
    document.goTo({ detections, schedules, actions, scene }, said('edits.text', 'Go back'))
    expect(names(document)).toEqual(['a', 'b'])
    expect([...document.getState().actions.keys()].sort()).toEqual(['a', 'b'])
    expect(document.getState().scene.ignore).toEqual([])
    document.undo()
    expect(names(document)).toEqual(['b', 'c'])
  })
})
