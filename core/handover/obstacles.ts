import { findingKey, type Finding } from '../readiness/index.ts'
import { wordsOf } from '../messages/words.ts'
import type { OpenPoint } from './record.ts'

/** An issue that somebody has accepted on purpose. */
export interface AcceptedIssue {
  key: string
  sentence: string
  reason: string
  by: string
  at: number
}

/** How the issues of a site stand towards a record. */
export interface Standing {
  /** What stands in the way of a clean record. */
  open: Finding[]
  accepted: { finding: Finding; by: AcceptedIssue }[]
  /** Hints: they stand in nobody's way, and are written as recommendations. */
  hints: Finding[]
}

export function standingOf(
  findings: readonly Finding[],
  accepted: readonly AcceptedIssue[]
): Standing {
  const found: Standing = { open: [], accepted: [], hints: [] }
  for (const finding of findings) {
    const key = findingKey(finding)
    const by = accepted.find((a) => a.key === key)
    if (by) found.accepted.push({ finding, by })
    else (finding.severity === 'hint' ? found.hints : found.open).push(finding)
  }
  return found
}

export const openPointOf = (finding: Finding): OpenPoint => ({
  key: findingKey(finding),
  severity: finding.severity,
  camera: finding.camera,
  device: finding.device,
  detection: finding.detection,
  sentence: wordsOf(finding.sentence)
})
