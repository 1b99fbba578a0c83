import type { Direction } from '../../detections/types.ts'
import { said, type Said } from '../../messages/said.ts'
import type { LineDetection } from './schema.ts'

/** The sides that a direction leads between, by their names: from, then to. */
export function sidesOf(
  line: Pick<LineDetection, 'sides'>,
  direction: Direction
): [Said | string, Said | string] {
  const { left = said('why.left'), right = said('why.right') } = line.sides ?? {}
  return direction === 'leftToRight' ? [left, right] : [right, left]
}

/** A direction in the names of its sides, `Water → Land`. */
export const pathOf = (line: Pick<LineDetection, 'sides'>, direction: Direction): Said =>
  said('why.path', ...sidesOf(line, direction))
