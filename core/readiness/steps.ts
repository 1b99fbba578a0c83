import { isRule } from './deviceRoutes.ts'
import { inUse, type CameraFacts, type Facts, type Finding } from './facts.ts'

/** One notch of a camera's readiness: done; begun, with something left; failed, as something blocks; nothing yet. */
export type ReadinessStep = 'done' | 'open' | 'failed' | 'empty'

export interface ReadinessSteps {
  drawn: ReadinessStep
  armed: ReadinessStep
  linked: ReadinessStep
  sent: ReadinessStep
  proven: ReadinessStep
}

const worst = (findings: readonly Finding[]): ReadinessStep =>
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
export function stepsOf(
  camera: CameraFacts,
  findings: readonly Finding[],
  { devices }: Facts
): ReadinessSteps {
  const own = findingsOfCamera(camera, findings)
  const of = (step: Finding['step']): ReadinessStep =>
    inUse(camera).length ? worst(own.filter((f) => f.step === step)) : 'empty'
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
      : worst(own.filter(({ step }) => step === 'sent'))
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
