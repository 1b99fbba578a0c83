import type { DetectionKind } from '../plan.ts'

/**
 * Types of rules, by kind. Those of the prefix `wo` are no part of the standard: the standard leaves room for types of a
 * device's own, and these are described in docs/device-extension.md. Source of the others: ONVIF Analytics Service
 * Specification (from memory).
 */
export const RULE_TYPES: Partial<Record<DetectionKind, string>> = {
  line: 'tt:LineDetector',
  intrusion: 'tt:FieldDetector',
  entry: 'wo:EntryDetector',
  exit: 'wo:ExitDetector',
  loitering: 'tt:LoiteringDetector',
  motion: 'tt:CellMotionDetector',
  classMotion: 'wo:ClassMotionDetector',
  tamper: 'tt:TamperDetector',
  face: 'wo:FaceDetector'
}

const own = new Set(Object.values(RULE_TYPES).filter((type) => type.startsWith('wo:')))

/** A type as it is named here, whatever prefix a device gives the namespace. */
export function ruleType(name: string): string {
  const local = name.replace(/^[^:]*:/, '')
  return own.has(`wo:${local}`) ? `wo:${local}` : `tt:${local}`
}

/** A type or a mode without the prefix of its namespace. */
export const localName = (type: string): string => type.replace(/^\w+:/, '')

export const kindOfType = (type: string): DetectionKind | undefined =>
  (Object.keys(RULE_TYPES) as DetectionKind[]).find((kind) => RULE_TYPES[kind] === type)

export interface Range {
  min: number
  max: number
}

/** What a device can do with one type of rule: as it says in its supported rules and their options. */
export interface RuleAbility {
  type: string
  /** How many of it at most; null: it does not say. */
  most: number | null
  /** Parameters that it takes, by name. */
  parameters: readonly string[]
  /** Ranges of those that are numbers. */
  ranges: Readonly<Record<string, Range>>
}

/** A family of analysis that a device runs or not; while it does not, the rules that it runs do nothing. */
export interface AnalysisMode {
  /** The module's type, as the device names it. */
  type: string
  /** Types of rules that need it. */
  runs: readonly string[]
  running: boolean
}

/** A share of 1 to 100 on a device's scale, and back: the step that is nearest. */
export const toScale = (sensitivity: number, { min, max }: Range): number =>
  Math.min(max, Math.max(min, Math.round(min + ((sensitivity - 1) / 99) * (max - min))))
export const fromScale = (value: number, { min, max }: Range): number =>
  max > min ? Math.round(1 + ((value - min) / (max - min)) * 99) : 50
