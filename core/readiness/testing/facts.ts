import { toRule } from '../../formats/onvif/toRule.ts'
import type { RuleAbility, Rule } from '../../formats/onvif/rule.ts'
import { DetectionSchema, type Detection } from '../../formats/plan.ts'
import { tracksFromRows } from '../../targets/tracks.ts'
import type { TargetClass } from '../../targets/classes.ts'
import { SiteHours } from '../../arming/coverage.ts'
import { ActionsSchema, EndpointSchema, type Endpoint } from '../../formats/actions.ts'
import type { Proof } from '../../proving/standing.ts'
import type {
  CameraFacts,
  ChannelFacts,
  ClipFacts,
  DeviceFacts,
  EndpointFacts,
  Facts
} from '../facts.ts'
import { parseWith } from '../../schema/parse.ts'

/** Facts of a small site for tests: one camera with one device that can do most things, unless it is said otherwise. */

export const detection = (settings: object): Detection =>
  parseWith(DetectionSchema, { id: 'one', name: 'One', ...settings })

/** A person-sized zone in the middle, and a line across it. */
export const zone = [
  [0.3, 0.3],
  [0.7, 0.3],
  [0.7, 0.8],
  [0.3, 0.8]
]
export const line = [
  [0.5, 0.2],
  [0.5, 0.9]
]

const all = [
  'Direction',
  'Sensitivity',
  'ClassFilter',
  'ConfirmTime',
  'TimeThreshold',
  'MinimumSize',
  'MaximumSize',
  'Hours',
  'HoldOff',
  'GraceTime',
  'MinCount',
  'AlarmOnDelay',
  'AlarmOffDelay',
  'ActiveCells',
  'DelayTime',
  'Causes',
  'FaceSize',
  'Mask',
  'Threshold'
]
const wide = { min: 0, max: 100_000 }

/** A type of rule with every parameter there is and room in each, or as it is said. */
export const ability = (type: string, more: Partial<RuleAbility> = {}): RuleAbility => ({
  type,
  most: null,
  parameters: all,
  ranges: {
    Sensitivity: { min: 1, max: 100 },
    ConfirmTime: wide,
    TimeThreshold: wide,
    HoldOff: wide,
    GraceTime: wide,
    MinCount: wide,
    AlarmOnDelay: wide,
    AlarmOffDelay: wide,
    DelayTime: wide
  },
  ...more
})

export const channel = (more: Partial<ChannelFacts> = {}): ChannelFacts => ({
  device: 'cam',
  deviceName: 'The camera',
  token: 'analytics',
  name: 'Picture',
  camera: 'gate',
  used: true,
  readAt: 1,
  abilities: [
    'tt:LineDetector',
    'tt:FieldDetector',
    'tt:LoiteringDetector',
    'tt:CellMotionDetector',
    'tt:TamperDetector',
    'wo:ClassMotionDetector',
    'wo:FaceDetector'
  ].map((type) => ability(type)),
  mostRules: null,
  modes: [],
  held: [],
  sent: null,
  surroundings: null,
  switchesBack: [],
  ...more
})

/** What a channel holds once these have been sent to it. */
export const asSent = (
  detections: readonly Detection[],
  to: ChannelFacts = channel()
): ChannelFacts => {
  const rules: Rule[] = detections.flatMap((d) => toRule(d, to.abilities, [])?.rule ?? [])
  return { ...to, held: rules, sent: rules }
}

export const device = (more: Partial<DeviceFacts> = {}): DeviceFacts => ({
  id: 'cam',
  name: 'The camera',
  state: 'online',
  clockAhead: 0,
  outputsWaiting: [],
  storage: null,
  ...more
})

/** One walk: a box of a size, from a place to a place, foot points as shares of the picture. */
export interface Walk {
  from: [number, number]
  to: [number, number]
  seconds: number
  begins?: number
  cls?: TargetClass
  w?: number
  h?: number
}

const FPS = 10

/** A clip of walks; it goes on for some seconds after the last, with somebody standing far away. */
export function clip(walks: readonly Walk[], more: Partial<ClipFacts> = {}): ClipFacts {
  const end = Math.max(...walks.map(({ begins = 0, seconds }) => begins + seconds)) + 3
  const far: Walk = {
    from: [0.97, 0.08],
    to: [0.97, 0.08],
    seconds: end,
    w: 0.01,
    h: 0.02,
    cls: 'unknown'
  }
  const rows = [...walks, far].flatMap(
    ({ from, to, seconds, begins = 0, cls = 'person', w = 0.05, h = 0.15 }, id) =>
      Array.from({ length: Math.round(seconds * FPS) + 1 }, (_, n) => {
        const t = n / (seconds * FPS)
        const [x, y] = [from[0] + (to[0] - from[0]) * t, from[1] + (to[1] - from[1]) * t]
        return {
          frame: Math.round(begins * FPS) + n + 1,
          id: id + 1,
          x: x - w / 2,
          y: y - h,
          w,
          h,
          confidence: 1,
          cls
        }
      })
  )
  return {
    id: 'clip',
    name: 'Morning',
    width: 1280,
    height: 720,
    tracks: tracksFromRows(rows, FPS),
    look: { luma: 120, contrast: 50 },
    ...more
  }
}

export const actions = (
  settings: object
): CameraFacts['actions'] extends ReadonlyMap<string, infer A> ? A : never =>
  parseWith(ActionsSchema, settings)
export const endpoint = (settings: object): Endpoint =>
  parseWith(EndpointSchema, { id: 'e', name: 'E', ...settings })
export const popup = endpoint({ id: 'popup', name: 'Pop-up', kind: 'popup', sound: 'none' })
export const tested = (of: Endpoint, more: Partial<EndpointFacts> = {}): EndpointFacts => ({
  endpoint: of,
  missing: null,
  tested: 'passed',
  ...more
})

/** With checks on both sides, all passed. */
const proven: Proof = { checks: 2, silences: 1, passed: 2, failed: 0, outdated: 0, failing: [] }

export const camera = (
  detections: readonly Detection[],
  more: Partial<CameraFacts> = {}
): CameraFacts => ({
  id: 'gate',
  name: 'Gate',
  pose: null,
  detections,
  actions: new Map(detections.map((d) => [d.id, actions({ links: ['popup'] })])),
  channels: [asSent(detections)],
  clips: [],
  proofs: new Map(detections.map((d) => [d.id, proven])),
  ...more
})

export const facts = (cameras: readonly CameraFacts[], more: Partial<Facts> = {}): Facts => {
  const schedules = more.schedules ?? []
  return {
    schedules,
    devices: [device()],
    cameras,
    recorders: [],
    endpoints: [tested(popup)],
    usual: null,
    inputs: [],
    hours: new SiteHours(
      schedules,
      'Europe/London',
      { latitude: 59, longitude: -3 },
      Date.UTC(2026, 10, 24, 12)
    ),
    ...more
  }
}
