import { said } from '../messages/said.ts'
import {
  LONGEST,
  STEP_SECONDS,
  nearest,
  relative,
  sensitivityChange,
  type GateChange,
  type Works
} from '../tuning/candidates.ts'
import type { StayDetection } from './schemas.ts'

/**
 * The share of the body, the dwell and how many together.
 *
 * @param least the shortest dwell that the kind allows, seconds
 */
export function* stayTuning(
  d: StayDetection,
  least: number,
  looser: boolean,
  works: Works
): Generator<GateChange> {
  yield* sensitivityChange(d, looser, works)
  const dwell = nearest(
    d.dwellSeconds,
    looser ? least : LONGEST.dwell,
    STEP_SECONDS,
    (dwellSeconds) => works({ ...d, dwellSeconds })
  )
  if (dwell !== null)
    yield {
      gate: 'dwell',
      words: said(
        'tuning.change',
        said('settings.dwell'),
        said('values.seconds', d.dwellSeconds),
        said('values.seconds', dwell)
      ),
      detection: { ...d, dwellSeconds: dwell },
      size: relative(d.dwellSeconds, dwell)
    }
  if (looser && !d.countFirstSeenInside)
    yield {
      gate: 'dwell',
      words: said('tuning.firstSeenInside'),
      detection: { ...d, countFirstSeenInside: true },
      size: 1
    }
  const count = nearest(d.atLeast, looser ? 1 : Math.min(100, d.atLeast + 5), 1, (atLeast) =>
    works({ ...d, atLeast })
  )
  if (count !== null)
    yield {
      gate: 'together',
      words: said(
        'tuning.change',
        said('settings.together'),
        said('values.number', d.atLeast),
        said('values.number', count)
      ),
      detection: { ...d, atLeast: count },
      size: relative(d.atLeast, count)
    }
}
