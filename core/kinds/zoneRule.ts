import type { Point } from '../geometry/shapes.ts'
import type { RuleReader } from './rule.ts'

/** A zone to start from, where a rule says none. */
export const blankZone: { zone: Point[] } = {
  zone: [
    [0.1, 0.1],
    [0.9, 0.1],
    [0.9, 0.9]
  ]
}

/** The zone as a rule has it. */
export const readZone = ({ points }: RuleReader): { zone?: Point[] } =>
  points.length ? { zone: [...points] } : {}
