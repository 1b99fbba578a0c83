import type { TargetClass } from '../../core/targets/classes.ts'

/** Things that are told apart which are targets, by their number among COCO's 80 classes, from 0. */
const PERSON = 0
const KINDS: Readonly<Record<number, TargetClass>> = {
  [PERSON]: 'person',
  1: 'cycle', // bicycle
  2: 'vehicle', // car
  3: 'cycle', // motorcycle
  5: 'vehicle', // bus
  6: 'vehicle', // train
  7: 'vehicle', // truck
  14: 'animal', // bird
  15: 'animal', // cat
  16: 'animal', // dog
  17: 'animal', // horse
  18: 'animal', // sheep
  19: 'animal', // cow
  20: 'animal', // elephant
  21: 'animal', // bear
  22: 'animal', // zebra
  23: 'animal' // giraffe
}

/**
 * The class of a target that one of COCO's 80 classes is; null: it is none, such as a bench.
 * Source: Lin and others, Microsoft COCO, 2014; the order of its 80 classes from memory.
 *
 * @param label from 0
 */
export const classOfLabel = (label: number): TargetClass | null => KINDS[label] ?? null

/** The labels that are targets, in order. */
export const LABELS_OF_TARGETS: readonly number[] = Object.keys(KINDS).map(Number)
