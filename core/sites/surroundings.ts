/** Where a camera looks: under the sky, in a room, or outside under a roof. */
export const SURROUNDINGS = ['outdoors', 'indoors', 'roofed'] as const
export type Surroundings = (typeof SURROUNDINGS)[number]

/** A device's switch for that: what it can be set to, and is set to (null: to what nobody here knows). */
export interface SurroundingsSwitch {
  offered: Surroundings[]
  held: Surroundings | null
}

/** What a switch should be set to; null: it has nothing that fits. Under a roof is outdoors where only that is offered. */
export function surroundingsFor(
  { offered }: Pick<SurroundingsSwitch, 'offered'>,
  camera: Surroundings
): Surroundings | null {
  const nearest = camera === 'roofed' ? 'outdoors' : camera
  return offered.find((s) => s === camera) ?? offered.find((s) => s === nearest) ?? null
}

/** A device's switch for where its camera looks, beside what the plan says; `wanted` null: the switch lacks it. */
export interface SurroundingsStanding {
  held: Surroundings | null
  wanted: Surroundings | null
}
