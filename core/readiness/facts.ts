import type { Said } from '../messages/said.ts'
import type { Channel } from '../devices/standing.ts'
import type { StorageView } from '../devices/upkeep.ts'
import type { DeviceState } from '../devices/views.ts'
import type { SiteHours } from '../arming/coverage.ts'
import type { Actions, Endpoint } from '../formats/actions.ts'
import { NO_ACTIONS } from '../formats/noActions.ts'
import type { Detection, Schedule } from '../formats/plan.ts'
import type { Proof } from '../proving/standing.ts'
import type { CameraPose } from '../scene/camera.ts'
import type { Tracks } from '../targets/tracks.ts'

export interface StorageFacts extends Pick<StorageView, 'place' | 'whenFull'> {
  full: boolean
}

/** What is known of a device. */
export interface DeviceFacts {
  id: string
  name: string
  state: DeviceState
  /** Seconds by which its clock is ahead. */
  clockAhead: number | null
  /** Outputs that the device should switch by itself and is not set up for yet, by name. */
  outputsWaiting: readonly string[]
  /** Where it records to; null: it does not say. */
  storage: readonly StorageFacts[] | null
}

/** An action that triggers can run. */
export interface EndpointFacts {
  endpoint: Endpoint
  /** Why it cannot act as it stands. */
  missing: Said | null
  tested: 'never' | 'failed' | 'passed'
}

export interface ChannelFacts extends Channel {
  /** Types of rules that the device was seen to switch on again by itself. */
  switchesBack: readonly string[]
}

/** What a clip shows. */
export interface ClipFacts {
  id: string
  name: string
  /** Pixels. */
  width: number
  height: number
  tracks: Tracks
  /** How the picture looks while nothing is wrong, 0 to 255; null: not measured. */
  look: { luma: number; contrast: number } | null
}

/** What is known of a camera of the site. */
export interface CameraFacts {
  id: string
  name: string
  /** Null: the scene has not been measured. */
  pose: CameraPose | null
  detections: readonly Detection[]
  /** Actions of detections, by detection; left out: none. */
  actions: ReadonlyMap<string, Actions>
  /** All routes to its analysis, used or not. */
  channels: readonly ChannelFacts[]
  clips: readonly ClipFacts[]
  /** How far each detection is proven, by detection. */
  proofs: ReadonlyMap<string, Proof>
}

/** Everything that findings are computed from. */
export interface Facts {
  schedules: readonly Schedule[]
  devices: readonly DeviceFacts[]
  cameras: readonly CameraFacts[]
  /** Channels of devices that have several, whether or not they show a camera. */
  recorders: readonly ChannelFacts[]
  endpoints: readonly EndpointFacts[]
  /** What is linked by default; null: not set. */
  usual: Actions | null
  hours: SiteHours
  /** Contacts of the site; `known`: a device has it. */
  inputs: readonly { id: string; name: string; known: boolean }[]
}

export type Severity = 'blocking' | 'warning' | 'hint'

/** What one click does about a finding. Edits of the plan can be taken back. */
export type QuickFix =
  | { does: 'edit'; words: Said; camera: string; detection: Detection }
  | { does: 'add'; words: Said; camera: string; detection: Detection }
  | { does: 'send'; words: Said; devices: string[] }
  | { does: 'mode'; words: Said; device: string; channel: string; type: string }
  | { does: 'door'; words: Said; device: string; channel: string }
  | { does: 'actions'; words: Said; camera: string; detection: string; actions: Actions }
  | { does: 'endpoint'; words: Said; endpoint: Endpoint }
  | { does: 'test'; words: Said; endpoint: string }
  | { does: 'clock'; words: Said; device: string }
  | { does: 'prove'; words: Said; camera: string; detection: string }
  /** Where somebody has to say more. */
  | { does: 'go'; words: Said; to: string }

export interface Finding {
  code: string
  severity: Severity
  /** What of the readiness it spoils. */
  step: 'drawn' | 'armed' | 'linked' | 'sent' | 'proven'
  camera: string | null
  device: string | null
  detection: string | null
  /** What will happen on site. */
  sentence: Said
  fix: QuickFix | null
  /** Another way, where there are two. */
  orElse?: QuickFix
  /** Of something that several cameras share: all of them; `camera` is the first. */
  shared?: string[]
}

/** What a check says of one thing; the code is the check's. */
export type Found = Omit<Finding, 'code'>

/** One kind of finding. Its file is named after its code. */
export interface Check {
  code: string
  find: (facts: Facts) => Found[]
}

/** A finding of a camera's detection. */
export const ofDetection = (
  severity: Severity,
  step: Finding['step'],
  camera: CameraFacts,
  d: Detection,
  sentence: Said,
  fix: QuickFix | null = null,
  device: string | null = null
): Found => ({ severity, step, camera: camera.id, device, detection: d.id, sentence, fix })

export const ofDevice = (
  severity: Severity,
  device: string,
  sentence: Said,
  fix: QuickFix | null = null,
  camera: string | null = null
): Found => ({ severity, step: 'sent', camera, device, detection: null, sentence, fix })

/** A change of one detection, as a fix. */
export const edit = (camera: CameraFacts, detection: Detection, words: Said): QuickFix => ({
  does: 'edit',
  words,
  camera: camera.id,
  detection
})

/** Detections that are in use, and really watch. */
export const inUse = (camera: CameraFacts): Detection[] =>
  camera.detections.filter((d) => d.enabled && !d.parked)

/** A kind of finding that looks at one detection after the other, of those in use. */
export const perDetection = (
  code: string,
  find: (d: Detection, camera: CameraFacts, facts: Facts) => Found[] | Found
): Check => ({
  code,
  find: (facts) =>
    facts.cameras.flatMap((camera) => inUse(camera).flatMap((d) => find(d, camera, facts)))
})

export const actionsOf = (camera: CameraFacts, d: Detection): Actions =>
  camera.actions.get(d.id) ?? NO_ACTIONS

/** The endpoints that a detection is linked to. */
export const linksOf = (camera: CameraFacts, d: Detection, { endpoints }: Facts): EndpointFacts[] =>
  actionsOf(camera, d).links.flatMap(
    (link) => endpoints.find(({ endpoint }) => endpoint.id === link) ?? []
  )

/** A kind of finding that looks at one endpoint after the other, of those that detections in use are linked to. */
export const perEndpoint = (
  code: string,
  find: (
    e: EndpointFacts,
    cameras: CameraFacts[]
  ) => Omit<Found, 'step' | 'camera' | 'device' | 'detection' | 'shared'>[]
): Check => ({
  code,
  find: (facts) =>
    facts.endpoints.flatMap((e) => {
      const cameras = facts.cameras.filter((c) =>
        inUse(c).some((d) => actionsOf(c, d).links.includes(e.endpoint.id))
      )
      if (!cameras.length) return []
      return find(e, cameras).map((found) => ({
        ...found,
        step: 'linked' as const,
        camera: cameras[0]!.id,
        device: null,
        detection: null,
        shared: cameras.map(({ id }) => id)
      }))
    })
})
