import { changesOf, standingOf, unmanagedOf } from '../devices/standing.ts'
import type { CameraFacts, Check, Facts, Finding, QuickFix } from './facts.ts'
import { findingsByCamera, stepsOf, type ReadinessSteps } from './steps.ts'
import { analysisOff } from './findings/analysis-off.ts'
import { clockOff } from './findings/clock-off.ts'
import { defaultPassword } from './findings/default-password.ts'
import { drift } from './findings/drift.ts'
import { dwellBelowPassers } from './findings/dwell-below-passers.ts'
import { framesRejectAll } from './findings/frames-reject-all.ts'
import { framesSwapped } from './findings/frames-swapped.ts'
import { kindUnsupported } from './findings/kind-unsupported.ts'
import { lineAtEdge } from './findings/line-at-edge.ts'
import { modeConflict } from './findings/mode-conflict.ts'
import { motionOff } from './findings/motion-off.ts'
import { noClassesSearch } from './findings/no-classes-search.ts'
import { notHeld } from './findings/not-held.ts'
import { notSent } from './findings/not-sent.ts'
import { obstructed } from './findings/obstructed.ts'
import { offline } from './findings/offline.ts'
import { outOfRange } from './findings/out-of-range.ts'
import { recorderFull } from './findings/recorder-full.ts'
import { seenTooShort } from './findings/seen-too-short.ts'
import { sensitivityExtreme } from './findings/sensitivity-extreme.ts'
import { switchesBack } from './findings/switches-back.ts'
import { tamperDarkView } from './findings/tamper-dark-view.ts'
import { tamperLowMount } from './findings/tamper-low-mount.ts'
import { targetTooLarge } from './findings/target-too-large.ts'
import { targetTooSmall } from './findings/target-too-small.ts'
import { tooMany } from './findings/too-many.ts'
import { armInputMissing } from './findings/arm-input-missing.ts'
import { barelyArmed } from './findings/barely-armed.ts'
import { hoursMiss } from './findings/hours-miss.ts'
import { neverArmed } from './findings/never-armed.ts'
import { noStationPush } from './findings/no-station-push.ts'
import { nothingLinked } from './findings/nothing-linked.ts'
import { outputNotSet } from './findings/output-not-set.ts'
import { preRecordOff } from './findings/pre-record-off.ts'
import { severityNotAccepted } from './findings/severity-not-accepted.ts'
import { untestedOutput } from './findings/untested-output.ts'
import { checkFailed } from './findings/check-failed.ts'
import { neverProven } from './findings/never-proven.ts'
import { noStorage } from './findings/no-storage.ts'
import { storageFull } from './findings/storage-full.ts'
import { storageStops } from './findings/storage-stops.ts'
import { onlyPositive } from './findings/only-positive.ts'
import { wrongDoor } from './findings/wrong-door.ts'

export type { ClipFacts, Facts, Finding, QuickFix, Severity } from './facts.ts'
export type { ReadinessStep, ReadinessSteps } from './steps.ts'

/** All findings: a new one is its file and one line here. */
const checks: readonly Check[] = [
  defaultPassword,
  offline,
  clockOff,
  analysisOff,
  modeConflict,
  motionOff,
  tooMany,
  recorderFull,
  kindUnsupported,
  outOfRange,
  notHeld,
  wrongDoor,
  switchesBack,
  drift,
  notSent,
  neverArmed,
  barelyArmed,
  armInputMissing,
  nothingLinked,
  outputNotSet,
  severityNotAccepted,
  hoursMiss,
  noStationPush,
  untestedOutput,
  preRecordOff,
  noStorage,
  storageFull,
  storageStops,
  framesSwapped,
  framesRejectAll,
  lineAtEdge,
  seenTooShort,
  targetTooLarge,
  targetTooSmall,
  obstructed,
  dwellBelowPassers,
  sensitivityExtreme,
  noClassesSearch,
  tamperDarkView,
  tamperLowMount,
  checkFailed,
  neverProven,
  onlyPositive
]

const weight = { blocking: 0, warning: 1, hint: 2 } as const

/** What is still missing on a site, worst first. */
export const findingsOf = (facts: Facts): Finding[] =>
  checks
    .flatMap(({ code, find }) => find(facts).map((found) => ({ code, ...found })))
    .sort((a, b) => weight[a.severity] - weight[b.severity])

/** What a fix changes; its words do not tell. */
function targetOf(fix: QuickFix | null | undefined): string {
  if (!fix) return ''
  switch (fix.does) {
    case 'edit':
    case 'add':
      return `${fix.does} ${fix.camera} ${fix.detection.id}`
    case 'actions':
    case 'prove':
      return `${fix.does} ${fix.camera} ${fix.detection}`
    case 'endpoint':
      return `${fix.does} ${fix.endpoint.id}`
    case 'clock':
      return `${fix.does} ${fix.device}`
    case 'test':
      return `${fix.does} ${fix.endpoint}`
    case 'send':
      return `${fix.does} ${fix.devices.join(' ')}`
    case 'mode':
    case 'door':
      return `${fix.does} ${fix.device} ${fix.channel}`
    case 'go':
      return `${fix.does} ${fix.to}`
  }
}

/** Names a finding, the same however its words or the settings that it proposes change. */
export const findingKey = (f: Finding): string =>
  [f.code, f.camera, f.device, f.detection, targetOf(f.fix), targetOf(f.orElse)]
    .join('|')
    .slice(0, 600)

/** How far a site is: its cameras with their notches, and what was found. */
export interface ReadinessView {
  cameras: {
    id: string
    steps: ReadinessSteps
    /** Changes that are not on its devices yet. */ changes: number
  }[]
  findings: Finding[]
}

const changes = (camera: CameraFacts, { schedules }: Facts): number =>
  camera.channels
    .filter((c) => c.readAt !== null)
    .reduce(
      (sum, c) =>
        sum +
        changesOf({
          used: c.used,
          detections: camera.detections.map((d) => standingOf(d, c, schedules, [])),
          unmanaged: unmanagedOf(camera.detections, c),
          surroundings: c.surroundings
        }),
      0
    )

export function readinessOf(facts: Facts): ReadinessView {
  const findings = findingsOf(facts)
  const byCamera = findingsByCamera(facts.cameras, findings)
  return {
    cameras: facts.cameras.map((camera) => ({
      id: camera.id,
      steps: stepsOf(camera, byCamera.get(camera.id) ?? [], facts),
      changes: changes(camera, facts)
    })),
    findings
  }
}
