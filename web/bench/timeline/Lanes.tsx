import { targetName } from '../../../core/messages/en/common.ts'
import { classes as classNames } from '../../../core/messages/en/codes/conditions.ts'
import { said } from '../../../core/messages/said.ts'
import { wordsOf } from '../../../core/messages/words.ts'
import { lanes as msg } from '../../../core/messages/en/bench/timeline.ts'
import './timeline.css'
import '../bench.css'
import { memo, useMemo, useState, type ReactNode } from 'react'
import type { BenchView, ClipView } from '../../../core/api.ts'
import { armedIntervals } from '../../../core/arming/armedHours.ts'
import { isNearMiss, type Ladder, type Trigger } from '../../../core/detections/index.ts'
import type { Detection, Schedule } from '../../../core/formats/plan.ts'
import type { TargetSpan } from '../../../core/targets/tracks.ts'
import type { TimedStay } from '../../../core/tuning/stays.ts'
import { kindNames } from '../../../core/kinds/names.ts'
import { letterOf } from '../../../core/kinds/words.ts'
import type { Choice } from '../contexts.ts'
import type { Selection } from '../selection.ts'
import type { Stretch } from './span.ts'
import { CloseOutlined } from '@ant-design/icons'

/** Who or what set a trigger off. */
const reasonOf = ({ target, cause, kind }: Trigger): string =>
  target !== undefined
    ? msg.target(target)
    : cause
      ? wordsOf(said(`causes.${cause}`))
      : kindNames[kind].toLowerCase()

/** Where in the clip a detection is not armed, as shares of its length. */
function disarmed(
  enabled: boolean,
  schedule: Schedule | null,
  site: BenchView['site'],
  clip: ClipView
): { from: number; to: number }[] {
  const seconds = clip.frames / clip.fps
  if (!enabled) return [{ from: 0, to: 1 }]
  if (!schedule) return []
  const armed = armedIntervals(
    schedule,
    site.timeZone,
    site.position ?? undefined,
    clip.start,
    clip.start + seconds * 1000
  )
  const gaps: { from: number; to: number }[] = []
  let last = 0
  for (const [from, to] of armed) {
    const [a, b] = [(from - clip.start) / 1000 / seconds, (to - clip.start) / 1000 / seconds]
    if (a > last) gaps.push({ from: last, to: a })
    last = b
  }
  if (last < 1) gaps.push({ from: last, to: 1 })
  return gaps
}

/** Where a moment is, and how long a time is, as shares of the stretch on show. */
export const placeOf = ({ from, to }: Stretch) => ({
  left: (time: number): string => `${(100 * (time - from)) / (to - from)}%`,
  long: (length: number): string => `${(100 * length) / (to - from)}%`
})

/**
 * Each trigger under its target and its number among the target's: one that moves while a shape is
 * dragged stays the same flag.
 */
function withOwnKeys(triggers: readonly Trigger[]): [string, Trigger][] {
  const counts = new Map<number, number>()
  return triggers.map((t) => {
    const target = t.target ?? -1
    const n = (counts.get(target) ?? 0) + 1
    counts.set(target, n)
    return [`${target} ${n}`, t]
  })
}

/** Triggers as flags to press. */
const Flags = memo(
  function Flags({
    detection: d,
    triggers,
    hidden,
    left,
    when,
    chosen,
    onMoment
  }: Pick<DetectionLaneProps, 'detection' | 'triggers' | 'chosen' | 'onMoment'> & {
    hidden: boolean
    when: When
    left: (time: number) => string
  }): ReactNode {
    return (
      <div hidden={hidden}>
        {withOwnKeys(triggers).map(([key, t]) => (
          <button
            key={key}
            type="button"
            className={`flag${chosen && (t.target ?? null) === chosen.target && t.frame === chosen.frame ? ' chosen' : ''}`}
            style={{ left: left(t.time) }}
            aria-label={msg.triggerOfAt(d.name, reasonOf(t), when(t.time))}
            title={msg.s(when(t.time), reasonOf(t))}
            onClick={() => onMoment(d.id, t.target ?? null, t.frame)}
          />
        ))}
      </div>
    )
  },
  (before, now) => now.hidden && before.hidden
)

/**
 * The same while a shape is dragged: one drawing in place of a button each, as it changes with
 * every move of the pointer.
 */
function DraggedFlags({
  triggers,
  stretch: { from, to },
  width
}: {
  triggers: readonly Trigger[]
  stretch: Stretch
  width: number
}): ReactNode {
  const path = triggers
    .map(
      (t) =>
        `M${(((t.time - from) / (to - from)) * width - 1).toFixed(1)} 0h15l-4 5.5 4 5.5h-13v14h-2z`
    )
    .join('')
  return (
    <svg className="dragged-flags" role="img" aria-label={msg.triggerTriggers(triggers.length)}>
      <path d={path} />
    </svg>
  )
}

/** A moment in words: seconds of a clip, or the time of the day. @param unit whether seconds have theirs */
export type When = (time: number, unit?: boolean) => string

/** What is shown of which clip, and how wide. */
interface Axis {
  site: BenchView['site']
  clip: ClipView
  stretch: Stretch
  /** Of the ground, in pixels. */
  width: number
  when: When
}

interface DetectionLaneProps {
  detection: Detection
  index: number
  schedule: Schedule | null
  axis: Axis
  triggers: readonly Trigger[]
  timed: readonly TimedStay[]
  ladders: readonly Ladder[]
  /** When it is selected: the target and frame that are. */
  chosen: Pick<Selection, 'target' | 'frame'> | null
  /** Its shape is being dragged. */
  dragging: boolean
  onDetection: Choice['chooseDetection']
  onMoment: Choice['showMoment']
}

/** One detection: the hours in which it is not armed as its ground, what it times, near misses, triggers. */
export const DetectionLane = memo(function DetectionLane({
  detection: d,
  index,
  schedule,
  axis: { site, clip, stretch, width, when },
  triggers,
  timed,
  ladders,
  chosen,
  dragging,
  onDetection,
  onMoment
}: DetectionLaneProps): ReactNode {
  const { left, long } = placeOf(stretch)
  const [settled, setSettled] = useState(triggers)
  if (!dragging && settled !== triggers) setSettled(triggers)
  const gaps = useMemo(
    () => disarmed(d.enabled, schedule, site, clip),
    [d.enabled, schedule, site, clip]
  )
  const seconds = Math.max(clip.frames / clip.fps, 0.1)
  return (
    <div className={`lane detection-lane${chosen ? ' chosen' : ''}`}>
      <button type="button" className="lane-name" onClick={() => onDetection(d.id)}>
        <b>{letterOf(index)}</b> {d.name}
      </button>
      <div className="ground">
        {gaps.map(({ from, to }) => (
          <span
            key={from}
            className="disarmed"
            title={d.enabled ? msg.notArmedHere : msg.switchedOff}
            style={{ left: left(from * seconds), width: long((to - from) * seconds) }}
          />
        ))}
        {timed.map(({ target: id, from, to, filled }) => (
          <span
            key={`${id} ${from}`}
            className={`timed${to >= filled ? ' full' : ''}`}
            title={msg.targetIsTimedHereOf(
              id,
              Math.max(0, Math.min(to, filled) - from).toFixed(1),
              (filled - from).toFixed(1)
            )}
            style={{ left: left(from), width: long(Math.max(0.05, Math.min(to, filled) - from)) }}
          />
        ))}
        {ladders.filter(isNearMiss).map((l) => (
          <button
            key={`${l.target} ${l.frame}`}
            type="button"
            className="near-miss"
            style={{ left: left(l.time) }}
            title={wordsOf(l.sentence)}
            aria-label={msg.nearMissOfTargetAt(l.target, when(l.time))}
            onClick={() => onMoment(d.id, l.target, l.frame)}
          >
            <CloseOutlined aria-hidden />
          </button>
        ))}
        <Flags
          detection={d}
          triggers={dragging ? settled : triggers}
          hidden={dragging}
          left={left}
          when={when}
          chosen={chosen}
          onMoment={onMoment}
        />
        {dragging && <DraggedFlags triggers={triggers} stretch={stretch} width={width} />}
      </div>
    </div>
  )
})

/** More rows than these nobody looks through, and they take long to draw. */
const MOST_LANES = 150

/** A row for each target of the clip. */
export const TargetLanes = memo(function TargetLanes({
  spans,
  ladders,
  detection,
  target,
  fps,
  stretch,
  when,
  onMoment
}: {
  spans: readonly TargetSpan[]
  ladders: readonly Ladder[]
  detection: string | null
  target: number | null
  fps: number
  stretch: Stretch
  when: When
  onMoment: Choice['showMoment']
}): ReactNode {
  const { left, long } = placeOf(stretch)
  // Of a day there may be thousands: those of the stretch on show, as many as can be looked through.
  const within = spans.filter(({ from, to }) => to >= stretch.from && from <= stretch.to)
  const shown = within.slice(0, MOST_LANES)
  const lanes = shown.map((span) => {
    const ladder = ladders.find(
      (l) => l.target === span.id && l.time >= span.from - 1e-6 && l.time <= span.to + 1e-6
    )
    return (
      <div
        key={`${span.id} ${span.from}`}
        className={`lane target-lane${span.id === target ? ' chosen' : ''}`}
      >
        <span className="lane-name">{targetName(classNames[span.cls], span.id)}</span>
        <div className="ground">
          <button
            type="button"
            className={`span ${ladder?.fired || !ladder ? '' : ladder.readings.some((r) => r.gate === 'class' && !r.passed) ? 'not-chosen' : ''}`}
            style={{ left: left(span.from), width: long(Math.max(span.to - span.from, 1 / fps)) }}
            aria-label={msg.toS(
              classNames[span.cls],
              span.id,
              when(span.from, false),
              when(span.to)
            )}
            onClick={() => onMoment(detection, span.id, ladder?.frame ?? null)}
          />
        </div>
      </div>
    )
  })
  return (
    <>
      {lanes}
      {within.length > shown.length && (
        <p className="quiet lane-note">{msg.more(within.length - shown.length)}</p>
      )}
    </>
  )
})
