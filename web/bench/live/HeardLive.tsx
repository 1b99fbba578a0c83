import { heardLive as msg } from '../../../core/messages/en/bench/live.ts'
import './live.css'
import '../bench.css'
import { useMemo, type ReactNode } from 'react'
import {
  sideBySide,
  type LiveSetting,
  type SideBySide
} from '../../../core/detections/liveEvaluation.ts'
import { isFrameKind } from '../../../core/formats/plan.ts'
import { wordsOf } from '../../../core/messages/words.ts'
import { eventWords } from '../../devices/words.tsx'
import { useClock } from '../../words/useClock.ts'
import type { Placed } from '../document.ts'
import { useDrawnLive, type DrawnNow } from './useDrawnLive.ts'
import type { Heard, LiveFrames } from './useLive.ts'

/** What a device says when something is over is no trigger. */
const isTrigger = ({ data }: Heard): boolean => data.State !== 'false' && data.IsInside !== 'false'

interface HeardTrigger {
  detection: string
  target: number | null
  at: number
  event: Heard
}

/** What the camera's device says as it comes, and beside it what would trigger as it is drawn, before anything is sent. */
export function HeardLive({
  heard,
  frames,
  setting,
  placed
}: {
  heard: readonly Heard[]
  frames: LiveFrames
  setting: LiveSetting
  placed: readonly Placed[]
}): ReactNode {
  const drawn = useDrawnLive(frames, setting)
  const rows = useMemo(() => {
    const gated = new Set(
      placed.flatMap(({ detection }) => (isFrameKind(detection) ? [] : [detection.id]))
    )
    const triggers = heard
      .filter((h) => gated.has(h.rule) && isTrigger(h))
      .map((event): HeardTrigger => ({
        detection: event.rule,
        target: /^\d+$/.test(event.data.ObjectId ?? '') ? Number(event.data.ObjectId) : null,
        at: event.at,
        event
      }))
    const others = heard
      .filter((h) => !(gated.has(h.rule) && isTrigger(h)))
      .map((event): SideBySide<HeardTrigger> => {
        const is = { detection: event.rule, target: null, at: event.at }
        return { ...is, heard: { ...is, event }, would: null }
      })
    return [...sideBySide(triggers, drawn.would), ...others].sort((a, b) => b.at - a.at)
  }, [heard, drawn.would, placed])
  return (
    <section className="timeline heard-live" aria-label={msg.liveEvents}>
      <p className="quiet">{rows.length ? msg.bothSides : msg.noEventsYetTriggers}</p>
      <ol>
        {rows.map((row) => (
          <Row
            key={
              row.heard
                ? `heard ${row.heard.event.key}`
                : `would ${row.detection} ${row.target} ${row.at}`
            }
            row={row}
            placed={placed}
            drawn={drawn}
          />
        ))}
      </ol>
    </section>
  )
}

function Row({
  row,
  placed,
  drawn
}: {
  row: SideBySide<HeardTrigger>
  placed: readonly Placed[]
  drawn: DrawnNow
}): ReactNode {
  const clock = useClock()
  const detection = placed.find((p) => p.detection.id === row.detection)?.detection
  const judged = detection !== undefined && !isFrameKind(detection)
  const event = row.heard?.event
  return (
    <li className={!judged || (row.heard && row.would) ? undefined : 'parts'}>
      <span className="figures">{clock.time(row.at)}</span>{' '}
      <strong>{detection?.name ?? row.detection}</strong>{' '}
      {event ? eventWords(event, detection) : row.target !== null && msg.target(row.target)}
      {judged && (
        <span className="quiet">
          {' '}
          {sidesOf(row, event !== undefined && isTrigger(event), drawn)}
        </span>
      )}
    </li>
  )
}

/** Who says that it triggered; where they part, why, as far as it can be told. */
function sidesOf(row: SideBySide<HeardTrigger>, fired: boolean, drawn: DrawnNow): string {
  if (row.heard && row.would) return msg.both
  if (row.would) return msg.drawnOnly
  if (!fired) return ''
  const why = drawn.whyNot(row.detection, row.target, row.at)
  return why ? msg.deviceOnly(wordsOf(why)) : msg.deviceOnlyUnknown
}
