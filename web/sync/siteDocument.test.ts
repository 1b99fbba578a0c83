import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { said } from '../../core/messages/said.ts'
import fc from 'fast-check'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import { canonical } from '../../core/history/states.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { nights, popup, smallSite as view } from '../testing/smallSite.ts'
import { SiteDocument } from './siteDocument.ts'

let sent: Asked[] = []
let versions: Map<string, number>
/** The server, by its rule that a save must name the version that is kept (server/actions/actions.test.ts tests the real one). */
const answer = ({ method, path, body }: Asked): { status?: number; body: unknown } => {
  const read = body ?? {}
  const [address, query] = path.split('?') as [string, string]
  const version = read.version ?? Number(new URLSearchParams(query).get('version'))
  if ((versions.get(address) ?? version) !== version)
    return {
      status: 409,
      body: {
        code: 'conflict',
        said: 'changed',
        current: { version: versions.get(address), changedAt: 5, endpoint: popup('theirs') }
      }
    }
  versions.set(address, version + 1)
  sent.push({ method, path: address, body: read })
  return { body: { version: version + 1 } }
}
beforeEach(() => {
  sent = []
  versions = new Map()
  jest.useFakeTimers()
  answerWith(answer)
  globalThis.localStorage = { getItem: () => null, setItem: () => {} } as unknown as Storage
})
afterEach(() => void jest.useRealTimers())
const settle = () => jest.advanceTimersByTimeAsync(3000)
const links = (document: SiteDocument) =>
  Object.fromEntries(['a', 'b', 'c'].map((id) => [id, document.actionsOf(`cam/${id}`).links]))

describe('editing a site', () => {
  test('a block of links is one step, saved once per detection and undone at once', async () => {
    const document = new SiteDocument(view())
    document.link(
      ['a', 'b'].flatMap((id) =>
        ['one', 'two'].map((endpoint) => ({ key: `cam/${id}`, endpoint }))
      ),
      true,
      said('edits.text', 'Link 4 crossings')
    )
    expect(links(document)).toEqual({ a: ['one', 'two'], b: ['one', 'two'], c: [] })
    await settle()
    expect(sent.map(({ method, path, body }) => [method, path, body.actions.links])).toEqual(
      ['a', 'b'].map((id) => ['PUT', `/cameras/cam/detections/${id}/actions`, ['one', 'two']])
    )
    document.undo()
    expect(links(document)).toEqual({ a: [], b: [], c: [] })
    await settle()
    expect(document.getState().status).toBe('saved')
    expect(sent.slice(2).map(({ body }) => body.actions)).toEqual([NO_ACTIONS, NO_ACTIONS])
  })

  test('relinking keeps its place; unlinking one leaves the others', () => {
    const document = new SiteDocument(view())
    document.link(
      [
        { key: 'cam/a', endpoint: 'one' },
        { key: 'cam/a', endpoint: 'two' }
      ],
      true,
      said('edits.text', 'Link')
    )
    document.link([{ key: 'cam/a', endpoint: 'one' }], true, said('edits.text', 'Link'))
    expect(links(document).a).toEqual(['one', 'two'])
    document.link([{ key: 'cam/a', endpoint: 'one' }], false, said('edits.text', 'Unlink'))
    expect(links(document).a).toEqual(['two'])
  })

  test('deleting an action removes its links; undo restores them', async () => {
    const document = new SiteDocument(view())
    document.link(
      [
        { key: 'cam/a', endpoint: 'one' },
        { key: 'cam/b', endpoint: 'two' }
      ],
      true,
      said('edits.text', 'Link')
    )
    await settle()
    document.removeEndpoint(popup('one'))
    expect([document.getState().endpoints.map((e) => e.id), links(document)]).toEqual([
      ['two'],
      { a: [], b: ['two'], c: [] }
    ])
    await settle()
    expect(sent.some(({ method, path }) => method === 'DELETE' && path === '/endpoints/one')).toBe(
      true
    )
    document.undo()
    await settle()
    // It has to be there again before something is linked to it.
    const back = sent.slice(-2).map(({ path }) => path)
    expect(back).toEqual(['/endpoints/one', '/cameras/cam/detections/a/actions'])
    expect(links(document).a).toEqual(['one'])
  })

  test('saves a dragged schedule only on release; cancelling restores it', async () => {
    const document = new SiteDocument(view())
    const longer = (to: string) =>
      ({ ...nights, week: { ...nights.week, mon: [['18:30', to] as const] } }) as typeof nights
    document.showSchedule(longer('20:00'))
    document.showSchedule(longer('21:00'))
    await settle()
    expect(sent).toEqual([])
    document.cancelDrag()
    expect(document.getState().schedules).toEqual([nights])
    document.showSchedule(longer('22:00'))
    document.commitDrag(said('edits.text', 'Change Monday'))
    expect(document.getState().undo).toEqual('Change Monday')
    await settle()
    expect(sent.map(({ body }) => body.schedule.week.mon)).toEqual([[['18:30', '22:00']]])
  })

  test('a conflicting save waits for a decision; choosing theirs can be undone', async () => {
    const document = new SiteDocument(view())
    versions.set('/endpoints/one', 4)
    document.editEndpoint({ ...popup('one'), name: 'Mine' }, said('edits.text', 'Rename one'))
    await settle()
    expect(document.getState()).toMatchObject({
      status: 'waiting',
      conflict: { name: 'Mine', version: 4 }
    })
    document.resolveConflict('theirs')
    expect(document.getState().endpoints.find((e) => e.name === 'Mine')).toBeUndefined()
    document.undo()
    await settle()
    expect(sent.at(-1)).toMatchObject({
      path: '/endpoints/one',
      body: { version: 4, endpoint: { name: 'Mine' } }
    })
  })

  test('takes in others’ changes, but not over what is being edited here', async () => {
    const document = new SiteDocument(view())
    const renamed = view({
      endpoints: [
        {
          version: 2,
          changedAt: 1,
          endpoint: { ...popup('one'), name: 'Theirs' },
          testedAt: null,
          testError: null
        }
      ]
    })
    document.adopt(renamed)
    expect(document.getState().endpoints.map((e) => e.name)).toEqual(['Theirs'])
    document.editEndpoint({ ...popup('one'), name: 'Mine' }, said('edits.text', 'Rename'))
    document.adopt({ ...renamed, endpoints: [{ ...renamed.endpoints[0]!, version: 3 }] })
    expect(document.getState().endpoints.map((e) => e.name)).toEqual(['Mine'])
  })

  test('undo to the start and redo give the same states', () => {
    const edit = fc.oneof(
      fc.record({
        do: fc.constant('link' as const),
        id: fc.constantFrom('a', 'b', 'c'),
        endpoint: fc.constantFrom('one', 'two'),
        on: fc.boolean()
      }),
      fc.record({
        do: fc.constant('severity' as const),
        id: fc.constantFrom('a', 'b'),
        severity: fc.constantFrom('minor' as const, 'critical' as const)
      }),
      fc.record({ do: fc.constant('remove' as const), endpoint: fc.constantFrom('one', 'two') }),
      fc.record({ do: fc.constant('people' as const), name: fc.constantFrom('Ines', 'Ruth') })
    )
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 20 }), (edits) => {
        const document = new SiteDocument(view())
        const shown = (): string =>
          canonical([
            document
              .getState()
              .endpoints.map((e) => e.id)
              .sort(),
            [...document.getState().actions].sort(),
            document.getState().people
          ])
        const states = [shown()]
        for (const e of edits) {
          if (e.do === 'link')
            document.link(
              [{ key: `cam/${e.id}`, endpoint: e.endpoint }],
              e.on,
              said('edits.text', 'Link')
            )
          else if (e.do === 'severity')
            document.setActions(
              [`cam/${e.id}`],
              (a) => ({ ...a, severity: e.severity }),
              said('edits.text', 'Change severity')
            )
          else if (e.do === 'remove') document.removeEndpoint(popup(e.endpoint))
          else
            document.edit(said('edits.text', 'People'), [
              'people:',
              { people: [{ id: 'p', name: e.name }], groups: [] }
            ])
          if (shown() !== states.at(-1)) states.push(shown())
        }
        for (const state of [...states].reverse().slice(1)) {
          document.undo()
          expect(shown()).toBe(state)
        }
        for (const state of states.slice(1)) {
          document.redo()
          expect(shown()).toBe(state)
        }
      })
    )
  })
})
