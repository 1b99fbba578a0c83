import { isOneOf } from '../isOneOf.ts'

/** The classes a target can have, in the order in which they are kept as numbers in `Tracks.cls`. */
export const CLASSES = ['unknown', 'person', 'vehicle', 'cycle', 'animal'] as const

export type TargetClass = (typeof CLASSES)[number]

/** The class of a name, as a camera says it; of no name of ours it is unknown. */
export const classNamed = (name: string): TargetClass => (isOneOf(CLASSES, name) ? name : 'unknown')

export const classIndex = (name: TargetClass): number => CLASSES.indexOf(name)
