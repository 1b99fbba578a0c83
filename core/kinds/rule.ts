import type { Said, SettingName } from '../messages/said.ts'
import type { Point } from '../geometry/shapes.ts'

/** What a number of a setting counts. */
export type SettingUnit = 'number' | 'seconds' | 'milliseconds' | 'cells'

/** Where a kind writes its own settings as a device's parameters. What the device cannot hold is a loss. */
export interface RuleWriter {
  /** Whether the device's type of rule has a parameter. */
  takes: (parameter: string) => boolean
  /** A number within the device's range; a loss where that changes it, or where there is no such parameter. */
  number: (
    parameter: string,
    setting: SettingName,
    wanted: number,
    unit: SettingUnit,
    write?: (held: number) => string
  ) => void
  /** A text, where the device takes it; else a loss: what was wanted, and what the device does instead. */
  item: (
    parameter: string,
    setting: SettingName,
    value: string,
    wanted?: Said,
    instead?: Said | null
  ) => void
  /** A parameter that every device with this type of rule has. */
  set: (parameter: string, value: string) => void
  lose: (setting: SettingName, wanted: Said, nearest?: Said | null) => void
}

/** What a device's rule says, in the plan's terms. */
export interface RuleReader {
  simple: Readonly<Record<string, string>>
  /** In shares of the picture. */
  points: readonly Point[]
  /** A duration in seconds under a field's name; nothing where the rule does not say it. */
  seconds: <F extends string>(parameter: string, field: F) => Partial<Record<F, number>>
}

/** How a kind is translated to a device's rule and back (docs/device-extension.md). */
export interface RuleOf<D> {
  /**
   * The type of rule. The prefix `wo` marks types that are no part of the standard, which leaves room for a device's
   * own. Source of the others: ONVIF Analytics Service Specification (from memory).
   */
  type: string
  /** What a detection of the kind needs besides its name, before the rule's parameters are read into it. */
  blank: Partial<D>
  /** Writes the kind's own settings. Returns the vertices of its shape. */
  write: (d: D, to: RuleWriter) => readonly Point[]
  /** The kind's own settings as the rule has them. */
  read: (d: D, from: RuleReader) => Partial<D>
}
