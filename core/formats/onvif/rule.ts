import type { Point } from '../../geometry/shapes.ts'

/** A rule as a device holds it. Source: ONVIF Analytics Service Specification, Config (from memory). */
export interface Rule {
  name: string
  type: string
  simple: Readonly<Record<string, string>>
  /** The polyline or polygon, in the standard's coordinates. */
  points: readonly Point[]
}

/** A type or a mode without the prefix of its namespace. */
export const localName = (type: string): string => type.replace(/^\w+:/, '')

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
