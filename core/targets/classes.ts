/** The classes a target can have, in the order in which they are kept as numbers in `Tracks.cls`. */
export const CLASSES = ['unknown', 'person', 'vehicle', 'cycle', 'animal'] as const

export type TargetClass = (typeof CLASSES)[number]

export const classIndex = (name: TargetClass): number => CLASSES.indexOf(name)
