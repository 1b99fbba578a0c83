import { templates as msg } from '../../../core/messages/en/bench/rail.ts'
import {
  DetectionSchema,
  ScheduleSchema,
  WEEKDAYS,
  type Detection,
  type Schedule
} from '../../../core/formats/plan.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import type { Surroundings } from '../../../core/sites/surroundings.ts'
import type { Placed } from '../document.ts'
import { newId } from '../../sync/newId.ts'
import { freeName } from './freeName.ts'
import { parseWith } from '../../../core/schema/parse.ts'

export interface TemplateContext {
  placed: readonly Placed[]
  schedules: readonly Schedule[]
  /** The site's place is known, so that hours can follow the sun. */
  hasPosition: boolean
  /** Of the camera. */
  surroundings: Surroundings
}

/** A common need, with every gate filled as one would start from on site (common practice, no source). */
export interface Template {
  id: string
  name: string
  /** What it is for, and what it sets. */
  says: string
  /** What is drawn for it; null: nothing. */
  shape: 'line' | 'intrusion' | null
  make: (
    points: readonly Point[],
    context: TemplateContext
  ) => { detections: Detection[]; schedules: Schedule[] }
}

type Part = { name: string; kind: Detection['kind'] } & Record<string, unknown>

/**
 * What of a target's conditions is set otherwise in a room, where nothing moves in the wind, people are near and soon out
 * of sight, and furniture hides their legs (common practice, no source).
 */
function indoors({ confirmSeconds, sensitivity }: Part): Record<string, number> {
  // Others look at the picture, not at a target.
  if (typeof confirmSeconds !== 'number' || typeof sensitivity !== 'number') return {}
  return {
    confirmSeconds: Math.max(0.2, Math.round(confirmSeconds * 5) / 10),
    sensitivity: Math.min(100, sensitivity + 10)
  }
}

/** Detections from their settings, each with an id and a name that are free. */
function made(
  parts: readonly Part[],
  { placed, surroundings }: TemplateContext,
  schedules: Schedule[] = []
): { detections: Detection[]; schedules: Schedule[] } {
  const detections: Detection[] = []
  for (const part of parts) {
    const taken = [...placed, ...detections.map((detection) => ({ detection }))]
    detections.push(
      parseWith(DetectionSchema, {
        ...part,
        ...(surroundings === 'indoors' && indoors(part)),
        id: newId(part.kind),
        name: freeName(part.name, taken)
      })
    )
  }
  return { detections, schedules }
}

/** The hours of the night: a schedule of the site that is called so, or a new one. */
function nights({ schedules, hasPosition }: TemplateContext): { id: string; added: Schedule[] } {
  const known = schedules.find(({ name }) => /^nights?$/i.test(name))
  if (known) return { id: known.id, added: [] }
  const spans = hasPosition
    ? [
        ['00:00', 'sunrise'],
        ['sunset', '24:00']
      ]
    : [
        ['00:00', '06:30'],
        ['18:30', '24:00']
      ]
  const schedule = parseWith(ScheduleSchema, {
    id: newId('nights'),
    name: msg.nights,
    week: Object.fromEntries(WEEKDAYS.map((day) => [day, spans]))
  })
  return { id: schedule.id, added: [schedule] }
}

export const TEMPLATES: readonly Template[] = [
  {
    id: 'water-edge',
    name: msg.watersEdge,
    says: msg.aLineAPerson,
    shape: 'line',
    make: (line, context) =>
      made(
        [
          {
            name: msg.watersEdge,
            kind: 'line',
            line,
            direction: 'both',
            sides: { left: msg.water, right: msg.land },
            classes: ['person'],
            sensitivity: 60,
            confirmSeconds: 0.3
          }
        ],
        context
      )
  },
  {
    id: 'fence-line',
    name: msg.fenceLine,
    says: msg.aLineOnTheFence,
    shape: 'line',
    make: (line, context) =>
      made(
        [
          {
            name: msg.fenceLine,
            kind: 'line',
            line,
            direction: 'both',
            classes: ['person'],
            sensitivity: 67,
            confirmSeconds: 0.2,
            holdOffSeconds: 5
          }
        ],
        context
      )
  },
  {
    id: 'doorway',
    name: msg.doorwayInAndOut,
    says: msg.aZoneJustBehindThe,
    shape: 'intrusion',
    make: (zone, context) =>
      made(
        [
          {
            name: msg.comesIn,
            kind: 'entry',
            zone,
            classes: ['person'],
            sensitivity: 40,
            confirmSeconds: 0.3
          },
          {
            name: msg.goesOut,
            kind: 'exit',
            zone,
            classes: ['person'],
            sensitivity: 40,
            confirmSeconds: 0.3
          }
        ],
        context
      )
  },
  {
    id: 'waiting-car',
    name: msg.waitingCar,
    says: msg.aZoneForWaiting,
    shape: 'intrusion',
    make: (zone, context) =>
      made(
        [
          {
            name: msg.waitingCar,
            kind: 'loitering',
            zone,
            classes: ['vehicle'],
            sensitivity: 50,
            dwellSeconds: 120,
            graceSeconds: 10,
            confirmSeconds: 1
          }
        ],
        context
      )
  },
  {
    id: 'no-go-night',
    name: msg.noGoAreaAtNight,
    says: msg.aZonePeopleCycles,
    shape: 'intrusion',
    make: (zone, context) => {
      const { id, added } = nights(context)
      return made(
        [
          {
            name: msg.noGoArea,
            kind: 'intrusion',
            zone,
            classes: ['person', 'cycle', 'vehicle'],
            sensitivity: 60,
            dwellSeconds: 2,
            confirmSeconds: 0.5,
            holdOffSeconds: 10,
            schedule: id
          }
        ],
        context,
        added
      )
    }
  },
  {
    id: 'camera-care',
    name: msg.cameraHealth,
    says: msg.noDrawingEveryTamper,
    shape: null,
    make: (_, context) =>
      made(
        [
          { name: msg.cameraHealth, kind: 'tamper', delaySeconds: 3, severity: 'major' },
          { name: msg.videoLoss, kind: 'signalLoss', delaySeconds: 5 }
        ],
        context
      )
  }
]
