import type { CameraFacts, Check, DeviceFacts, Facts, Found } from './facts.ts'
import { inUse, linksOf } from './facts.ts'

/** A device that recordings of triggers go to, with the cameras that they are of. */
interface Recorder {
  device: DeviceFacts
  cameras: CameraFacts[]
}

/**
 * The devices that recordings of detections in use go to: of a recorder where one shows the camera, or else of the
 * camera itself (`Devices.recorderOf` chooses in the same way).
 */
function recordersIn(facts: Facts): Recorder[] {
  const channelsOf = (device: string): number =>
    facts.recorders.filter((c) => c.device === device).length
  const found = new Map<string, Recorder>()
  for (const camera of facts.cameras)
    for (const d of inUse(camera))
      for (const { endpoint } of linksOf(camera, d, facts)) {
        if (endpoint.kind !== 'recording') continue
        const recorded = facts.cameras.find((c) => c.id === (endpoint.camera ?? camera.id))
        const [first] = [...(recorded?.channels ?? [])].sort(
          (a, b) => channelsOf(b.device) - channelsOf(a.device)
        )
        const device = facts.devices.find(({ id }) => id === first?.device)
        if (!recorded || !device) continue
        const recorder = found.get(device.id) ?? { device, cameras: [] }
        if (!recorder.cameras.includes(recorded)) recorder.cameras.push(recorded)
        found.set(device.id, recorder)
      }
  return [...found.values()]
}

/** A kind of finding that looks at one device after the other that recordings go to. */
export const perRecorder = (
  code: string,
  find: (recorder: Recorder) => Found[] | Found
): Check => ({
  code,
  find: (facts) => recordersIn(facts).flatMap(find)
})
