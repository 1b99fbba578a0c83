import { sensitivityChange, type GateChange, type Works } from '../../tuning/candidates.ts'
import type { LineDetection } from './schema.ts'

/** The share of the body and the direction. */
export function* lineTuning(
  d: LineDetection,
  looser: boolean,
  works: Works
): Generator<GateChange> {
  yield* sensitivityChange(d, looser, works)
  if (looser && d.direction !== 'both')
    yield {
      gate: 'direction',
      words: 'count both directions',
      detection: { ...d, direction: 'both' },
      size: 1
    }
  if (looser) return
  for (const direction of ['leftToRight', 'rightToLeft'] as const)
    if (direction !== d.direction)
      yield {
        gate: 'direction',
        words:
          d.direction === 'both' ? 'count only the other direction' : 'count the other direction',
        detection: { ...d, direction },
        size: 1
      }
}
