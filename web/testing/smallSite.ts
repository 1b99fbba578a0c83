import type { SiteActionsView } from '../../core/api.ts'
import { EndpointSchema, type Endpoint } from '../../core/formats/actions.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import { DetectionSchema, ScheduleSchema, type Detection } from '../../core/formats/plan.ts'
import { parseWith } from '../../core/schema/parse.ts'

/** A site of one camera with three lines, two pop-ups and the hours of Monday's evening. */

const detection = (id: string): Detection =>
  parseWith(DetectionSchema, {
    id,
    name: id.toUpperCase(),
    kind: 'line',
    line: [
      [0.1, 0.5],
      [0.9, 0.5]
    ]
  })
export const popup = (id: string): Endpoint =>
  parseWith(EndpointSchema, { id, name: id, kind: 'popup', sound: 'none' })
export const nights = parseWith(ScheduleSchema, {
  id: 'nights',
  name: 'Nights',
  week: { mon: [['18:30', '24:00']] }
})
const kept = { version: 1, changedAt: 0 }

export function smallSite(more: Partial<SiteActionsView> = {}): SiteActionsView {
  return {
    site: {
      id: 'site',
      name: 'Site',
      timeZone: 'UTC',
      position: null,
      surroundings: 'outdoors',
      isSetUp: true,
      version: 1,
      changedAt: 0,
      inputs: [],
      cameras: [],
      deletedCameras: []
    },
    detections: ['a', 'b', 'c'].map((id, position) => ({
      ...kept,
      camera: 'cam',
      cameraName: 'Cam',
      detection: detection(id),
      position,
      actions: { actions: NO_ACTIONS, version: 0, changedAt: 0 }
    })),
    schedules: [{ ...kept, schedule: nights }],
    endpoints: ['one', 'two'].map((id) => ({
      ...kept,
      endpoint: popup(id),
      testedAt: null,
      testError: null
    })),
    mail: { ...kept, mail: null, hasPassword: false },
    people: { ...kept, people: { people: [], groups: [] } },
    usual: { version: 0, changedAt: 0, actions: null },
    outputs: [],
    contacts: [],
    voices: [],
    inputs: {},
    stations: {},
    byCamera: [],
    ...more
  }
}
