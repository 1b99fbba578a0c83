import { targetWords } from './targetWords.ts'
import { said } from '../../../core/messages/said.ts'
import { wordsOf } from '../../../core/messages/words.ts'
import { nearMisses as msg } from '../../../core/messages/en/bench/inspector.ts'
import './inspector.css'
import { timeOfDay } from '../../../core/messages/format.ts'
import { memo, type ReactNode } from 'react'
import { isNearMiss, missingOf, type Ladder } from '../../../core/detections/index.ts'
import type { TargetSpan } from '../../../core/targets/tracks.ts'

/** Targets that one gate alone stopped, those first that lacked least. */
export const NearMisses = memo(function NearMisses({
  ladders,
  spans,
  start,
  timeZone,
  onChoose
}: {
  ladders: readonly Ladder[]
  spans: readonly TargetSpan[]
  /** The instant of the first frame, where moments are told by the clock; null: by seconds, as of a clip. */
  start: number | null
  timeZone: string
  onChoose: (ladder: Ladder) => void
}): ReactNode {
  const near = ladders
    .filter(isNearMiss)
    .sort((a, b) => missingOf(a) - missingOf(b) || a.time - b.time)
  if (!near.length) return null
  return (
    <section className="near-misses" aria-label={msg.nearMisses}>
      <h3>{msg.nearClosestFirst(near.length)}</h3>
      <ol>
        {near.map((ladder) => {
          const stopped = ladder.readings.find((r) => !r.passed)!
          const missing = missingOf(ladder)
          return (
            <li key={`${ladder.target} ${ladder.frame}`}>
              <button type="button" onClick={() => onChoose(ladder)}>
                <span>
                  {targetWords(spans, ladder.target)},{' '}
                  <span className="figures">
                    {start === null
                      ? msg.s(ladder.time.toFixed(1))
                      : timeOfDay(start + 1000 * ladder.time, timeZone)}
                  </span>
                </span>
                <span className="quiet">
                  {wordsOf(said(`conditions.${stopped.gate}`))}:{' '}
                  {missing < 1
                    ? msg.short(Math.max(1, Math.round(missing * 100)))
                    : wordsOf(stopped.measured)}
                </span>
                <span className="gauge stopped" aria-hidden="true">
                  <span style={{ width: `${100 * (1 - missing)}%` }} />
                </span>
              </button>
            </li>
          )
        })}
      </ol>
    </section>
  )
})
