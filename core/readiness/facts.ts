import type { Channel } from '../devices/standing.ts'
import type { DeviceState } from '../devices/views.ts'
import type { Detection, Schedule } from '../formats/plan.ts'
import type { CameraPose } from '../scene/camera.ts'
import type { Tracks } from '../targets/tracks.ts'

/** What is known of a device. */
export interface DeviceFacts {
  id: string
  name: string
  state: DeviceState
  /** Seconds by which its clock is ahead. */
  clockAhead: number | null
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
  /** All doors to its analysis, used or not. */
  channels: readonly ChannelFacts[]
  clips: readonly ClipFacts[]
}

/** Everything that findings are computed from. */
export interface Facts {
  schedules: readonly Schedule[]
  devices: readonly DeviceFacts[]
  cameras: readonly CameraFacts[]
  /** Channels of devices that have several, whether or not they show a camera. */
  recorders: readonly ChannelFacts[]
}

export type Severity = 'blocking' | 'warning' | 'hint'

/** What one click does about a finding. Edits of the plan can be taken back. */
export type Mend =
  | { does: 'edit'; words: string; camera: string; detection: Detection }
  | { does: 'add'; words: string; camera: string; detection: Detection }
  | { does: 'send'; words: string; devices: string[] }
  | { does: 'mode'; words: string; device: string; channel: string; type: string }
  | { does: 'door'; words: string; device: string; channel: string }

export interface Finding {
  code: string
  severity: Severity
  /** What of the readiness it spoils. */
  notch: 'drawn' | 'sent'
  camera: string | null
  device: string | null
  detection: string | null
  /** What will happen on site. */
  sentence: string
  mend: Mend | null
}

/** What a check says of one thing; the code is the check's. */
export type Found = Omit<Finding, 'code'>

/** One kind of finding. Its file is named after its code. */
export interface Check {
  code: string
  find(facts: Facts): Found[]
}

/** A finding of a camera's detection. */
export const ofDetection = (severity: Severity, notch: Finding['notch'], camera: CameraFacts, d: Detection, sentence: string, mend: Mend | null = null, device: string | null = null): Found => ({ severity, notch, camera: camera.id, device, detection: d.id, sentence, mend })

export const ofDevice = (severity: Severity, device: string, sentence: string, mend: Mend | null = null, camera: string | null = null): Found => ({ severity, notch: 'sent', camera, device, detection: null, sentence, mend })

/** A change of one detection, as a mend. */
export const edit = (camera: CameraFacts, detection: Detection, words: string): Mend => ({ does: 'edit', words, camera: camera.id, detection })

/** Detections that are in use, and really watch. */
export const inUse = (camera: CameraFacts): Detection[] => camera.detections.filter((d) => d.enabled && !d.parked)

/** A kind of finding that looks at one detection after the other, of those in use. */
export const perDetection = (code: string, find: (d: Detection, camera: CameraFacts, facts: Facts) => Found[] | Found): Check => ({
  code,
  find: (facts) => facts.cameras.flatMap((camera) => inUse(camera).flatMap((d) => find(d, camera, facts)))
})
