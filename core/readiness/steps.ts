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

/** Findings of each camera, in their order: its own, and those of the devices that show it. Each is looked at once. */
export function findingsByCamera(
  cameras: readonly CameraFacts[],
  findings: readonly Finding[]
): ReadonlyMap<string, Finding[]> {
  const byCamera = new Map<string, Finding[]>(cameras.map(({ id }) => [id, []]))
  const shownBy = new Map<string, Set<string>>()
  for (const { id, channels } of cameras)
    for (const { device } of channels)
      shownBy.set(device, (shownBy.get(device) ?? new Set()).add(id))
  for (const finding of findings) {
    const own = finding.camera === null ? shownBy.get(finding.device ?? '') : [finding.camera]
    for (const camera of new Set([...(own ?? []), ...(finding.shared ?? [])]))
      byCamera.get(camera)?.push(finding)
  }
  return byCamera
}

/** How far a camera is. @param own what was found of it */
export function stepsOf(
  camera: CameraFacts,
  own: readonly Finding[],
  { devices }: Facts
): ReadinessSteps {
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
