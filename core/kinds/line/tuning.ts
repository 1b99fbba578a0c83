import { said } from '../../messages/said.ts'
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
      words: said('tuning.bothDirections'),
      detection: { ...d, direction: 'both' },
      size: 1
    }
  if (looser) return
  for (const direction of ['leftToRight', 'rightToLeft'] as const)
    if (direction !== d.direction)
      yield {
        gate: 'direction',
        words:
          d.direction === 'both'
            ? said('tuning.onlyOtherDirection')
            : said('tuning.otherDirection'),
        detection: { ...d, direction },
        size: 1
      }
}
