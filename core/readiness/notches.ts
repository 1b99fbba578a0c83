import { isRule } from './doors.ts'
import { inUse, type CameraFacts, type Facts, type Finding } from './facts.ts'

/** One notch of a camera's readiness: done; begun, with something left; failed, as something blocks; nothing yet. */
export type Notch = 'done' | 'open' | 'failed' | 'empty'

export interface Notches {
  drawn: Notch
  armed: Notch
  linked: Notch
  sent: Notch
  proven: Notch
}

const worst = (findings: readonly Finding[]): Notch =>
  findings.some(({ severity }) => severity === 'blocking')
    ? 'failed'
    : findings.some(({ severity }) => severity === 'warning')
      ? 'open'
      : 'done'

/** Findings of a camera: its own, and those of the devices that show it. */
export const findingsOfCamera = (camera: CameraFacts, findings: readonly Finding[]): Finding[] =>
  findings.filter(
    (f) =>
      f.camera === camera.id ||
      f.shared?.includes(camera.id) ||
      (f.camera === null && camera.channels.some(({ device }) => device === f.device))
  )

/** How far a camera is, by what was found. */
export function notchesOf(
  camera: CameraFacts,
  findings: readonly Finding[],
  { devices }: Facts
): Notches {
  const own = findingsOfCamera(camera, findings)
  const of = (notch: Finding['notch']): Notch =>
    inUse(camera).length ? worst(own.filter((f) => f.notch === notch)) : 'empty'
  const rules = inUse(camera).filter(isRule)
  const reached = camera.channels.filter(
    (c) => c.used && c.readAt !== null && devices.some(({ id }) => id === c.device)
  )
  const sent = !rules.length
    ? 'empty'
    : !reached.length
      ? camera.channels.length
        ? 'failed'
        : 'empty'
      : worst(own.filter(({ notch }) => notch === 'sent'))
  const begun = inUse(camera).some(
    (d) => (camera.proofs.get(d.id)?.passed ?? 0) + (camera.proofs.get(d.id)?.failed ?? 0) > 0
  )
  return {
    drawn: of('drawn'),
    armed: of('armed'),
    linked: of('linked'),
    sent,
    proven: begun ? of('proven') : 'empty'
  }
}
