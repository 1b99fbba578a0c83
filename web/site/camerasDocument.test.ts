import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import type { SiteView } from '../../core/api.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { CamerasDocument } from './camerasDocument.ts'

const view: SiteView = {
  id: 's',
  name: 'Store',
  timeZone: 'UTC',
  position: null,
  surroundings: 'outdoors',
  isSetUp: true,
  version: 3,
  changedAt: 0,
  inputs: [],
  cameras: ['Gate', 'Yard', 'Door'].map((name, order) => ({
    id: name.toLowerCase(),
    name,
    order,
    surroundings: null,
    version: 1,
    changedAt: 0,
    detections: 0,
    clips: 0,
    clip: null
  })),
  deletedCameras: [{ id: 'old', version: 5 }]
}
const names = (document: CamerasDocument): string[] =>
  document.getState().cameras.map((c) => c.settings.name)

let asked: Asked[]
beforeEach(() => {
  jest.useFakeTimers()
  asked = answerWith(() => ({ body: { version: 9 } }))
})
afterEach(() => {
  jest.useRealTimers()
})

describe('editing the cameras of a site', () => {
  test('adds at the end, moves one place, and undoes each as one step', () => {
    const document = new CamerasDocument(view)
    document.add({ name: 'Roof', surroundings: null })
    expect(names(document)).toEqual(['Gate', 'Yard', 'Door', 'Roof'])
    document.move('gate', 1)
    expect(names(document)).toEqual(['Yard', 'Gate', 'Door', 'Roof'])
    document.move('yard', -1)
    expect(names(document)).toEqual(['Yard', 'Gate', 'Door', 'Roof'])
    document.undo()
    expect(names(document)).toEqual(['Gate', 'Yard', 'Door', 'Roof'])
    document.undo()
    expect(names(document)).toEqual(['Gate', 'Yard', 'Door'])
    document.redo()
    expect(names(document)).toEqual(['Gate', 'Yard', 'Door', 'Roof'])
  })

  test('moves saved only those whose place changes', async () => {
    const document = new CamerasDocument(view)
    document.move('door', -1)
    await jest.advanceTimersByTimeAsync(1000)
    expect(asked.map(({ path }) => path).sort()).toEqual([
      '/cameras/door/settings',
      '/cameras/yard/settings'
    ])
  })

  test('brings a deleted camera back over the version of its deletion', async () => {
    const document = new CamerasDocument(view)
    const [gate] = document.getState().cameras
    document.remove(gate!)
    await jest.advanceTimersByTimeAsync(1000)
    expect(asked).toMatchObject([{ method: 'DELETE', path: '/cameras/gate/settings?version=1' }])
    document.undo()
    await jest.advanceTimersByTimeAsync(1000)
    expect(asked[1]).toMatchObject({
      method: 'PUT',
      path: '/cameras/gate/settings',
      body: { version: 9, settings: { name: 'Gate', order: 0 } }
    })
  })

  test('the settings of the site are a step of their own', async () => {
    const document = new CamerasDocument(view)
    document.setSite({ ...document.getState().settings, name: 'Harbour Store' })
    await jest.advanceTimersByTimeAsync(1000)
    expect(asked).toMatchObject([
      {
        method: 'PUT',
        path: '/site',
        body: { version: 3, settings: { name: 'Harbour Store' } }
      }
    ])
    document.undo()
    expect(document.getState().settings.name).toBe('Store')
  })
})
