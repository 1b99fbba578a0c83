import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState, type PointerEvent, type ReactNode } from 'react'
import { armedIntervals } from '../../../core/arming/armedHours.ts'
import { causeWords, isNearMiss, type Ladder, type Trigger } from '../../../core/detections/index.ts'
import type { ClipView, SiteView } from '../../../core/api.ts'
import type { Detection, Schedule } from '../../../core/formats/plan.ts'
import type { TargetSpan } from '../../../core/targets/tracks.ts'
import type { Placed } from '../document.ts'
import type { TimedStay } from '../../../core/tuning/stays.ts'
import { useLoop, useTime, type Playhead } from '../playhead.ts'
import { kindNames } from '../../kinds.ts'
import { letterOf } from '../words.ts'
import { panned, showing, zoomed, type Stretch } from './span.ts'

export interface TimelineProps {
  clip: ClipView
  site: Omit<SiteView, 'cameras'>
  playhead: Playhead
  placed: Placed[]
  schedules: Schedule[]
  spans: TargetSpan[]
  triggers: Trigger[]
  ladders: Ladder[]
  /** When targets are timed, by detection. */
  timed: ReadonlyMap<string, readonly TimedStay[]>
  detection: string | null
  target: number | null
  at: number | null
  onDetection: (id: string) => void
  onMoment: (detection: string | null, target: number | null, frame: number | null) => void
}

const LABELS = 132
const STEPS = [0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600]

/** Who or what set a trigger off. */
const reasonOf = ({ target, cause, kind }: Trigger): string => (target !== undefined ? `target ${target}` : cause ? causeWords[cause] : kindNames[kind].toLowerCase())

/** Where in the clip each detection is not armed, as shares of its length. */
function disarmed(detection: Detection, schedules: Schedule[], site: TimelineProps['site'], clip: ClipView): { from: number; to: number }[] {
  const schedule = schedules.find((s) => s.id === detection.schedule)
  const seconds = clip.frames / clip.fps
  if (!detection.enabled) return [{ from: 0, to: 1 }]
  if (!schedule) return []
  const armed = armedIntervals(schedule, site.timeZone, site.position ?? undefined, clip.start, clip.start + seconds * 1000)
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

/** Under the picture: a row for each detection with its triggers, a row for each target, and the playhead. */
export function Timeline(props: TimelineProps): ReactNode {
  const { clip, site, playhead, placed, schedules, spans, triggers, ladders, timed, detection, target, at, onDetection, onMoment } = props
  const rows = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(0)
  const seconds = Math.max(clip.frames / clip.fps, 0.1)
  useLayoutEffect(() => {
    const element = rows.current
    if (!element) return
    const observer = new ResizeObserver(() => setWidth(Math.max(0, element.clientWidth - LABELS - 16)))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])

  const [chosen, setStretch] = useState<Stretch | null>(null)
  const stretch = useMemo(() => chosen ?? { from: 0, to: seconds }, [chosen, seconds])
  const shown = stretch.to - stretch.from
  useEffect(() => setStretch(null), [clip.id])
  // The moment on show stays in sight, also while it plays.
  useEffect(() => {
    if (chosen) return playhead.subscribe(() => setStretch((now) => now && showing(now, playhead.time, seconds)))
  }, [chosen, playhead, seconds])
  useWheel(rows, (event, share) => {
    if (event.ctrlKey || event.metaKey) setStretch(wholeIsNone(zoomed(stretch, Math.exp(-event.deltaY * 0.004), stretch.from + share * shown, seconds), seconds))
    else if (event.deltaX || event.shiftKey) setStretch(wholeIsNone(panned(stretch, ((event.deltaX || event.deltaY) / Math.max(width, 1)) * shown, seconds), seconds))
    else return false
    return true
  })
  const zoom = (factor: number): void => setStretch(wholeIsNone(zoomed(stretch, factor, Math.min(stretch.to, Math.max(stretch.from, playhead.time)), seconds), seconds))

  const step = STEPS.find((s) => (s / shown) * width >= 52) ?? 7200
  const left = useCallback((time: number): string => `${(100 * (time - stretch.from)) / shown}%`, [stretch, shown])
  const long = useCallback((length: number): string => `${(100 * length) / shown}%`, [shown])
  const timeAt = (event: PointerEvent<HTMLElement>): number => {
    const box = event.currentTarget.getBoundingClientRect()
    return Math.min(seconds, Math.max(0, stretch.from + ((event.clientX - box.left) / box.width) * shown))
  }
  const loopFrom = useRef<number | null>(null)
  const scrub = (event: PointerEvent<HTMLElement>): void => {
    if (event.type === 'pointerdown') {
      event.currentTarget.setPointerCapture(event.pointerId)
      loopFrom.current = event.shiftKey ? timeAt(event) : null
    } else if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const time = timeAt(event)
    if (loopFrom.current !== null) {
      const [a, b] = [Math.min(loopFrom.current, time), Math.max(loopFrom.current, time)]
      return playhead.setLoop(b - a >= 0.2 ? [a, b] : null)
    }
    playhead.pause()
    playhead.seek(time)
  }

  const gaps = useMemo(() => new Map(placed.map(({ detection: d }) => [d.id, disarmed(d, schedules, site, clip)])), [placed, schedules, site, clip])
  return (
    <section className="timeline" aria-label="Timeline" ref={rows}>
      <div className="timeline-content">
        <div className="ruler">
          <span className="timeline-tools">
            <button type="button" aria-label="Show a longer stretch" disabled={!chosen} onClick={() => zoom(0.5)}>
              −
            </button>
            <button type="button" aria-label="Show a shorter stretch" onClick={() => zoom(2)}>
              +
            </button>
            {chosen && (
              <button type="button" onClick={() => setStretch(null)}>
                whole clip
              </button>
            )}
          </span>
          <div className="scale" onPointerDown={scrub} onPointerMove={scrub}>
            <LoopBar playhead={playhead} left={left} long={long} />
            {ticksOf(stretch, step).map((tick) => (
              <span key={tick} className="figures" style={{ left: left(tick) }}>
                {step < 60 ? tick : `${Math.floor(tick / 60)}:${String(tick % 60).padStart(2, '0')}`}
              </span>
            ))}
          </div>
        </div>
        <div className="lanes">
          {placed.map(({ detection: d }, index) => (
            <div key={d.id} className={`lane detection-lane${d.id === detection ? ' chosen' : ''}`}>
              <button type="button" className="lane-name" onClick={() => onDetection(d.id)}>
                <b>{letterOf(index)}</b> {d.name}
              </button>
              <div className="ground">
                {gaps.get(d.id)?.map(({ from, to }) => (
                  <span key={from} className="disarmed" title={d.enabled ? 'Not armed here' : 'Switched off'} style={{ left: left(from * seconds), width: long((to - from) * seconds) }} />
                ))}
                {timed.get(d.id)?.map(({ target: id, from, to, filled }) => (
                  <span key={`${id} ${from}`} className={`timed${to >= filled ? ' full' : ''}`} title={`Target ${id} is timed here: ${Math.min(to, filled) - from >= 0.05 ? (Math.min(to, filled) - from).toFixed(1) : '0'} of ${(filled - from).toFixed(1)} s`} style={{ left: left(from), width: long(Math.max(0.05, Math.min(to, filled) - from)) }} />
                ))}
                {d.id === detection &&
                  ladders.filter(isNearMiss).map((l) => (
                    <button key={`${l.target} ${l.frame}`} type="button" className="near-miss" style={{ left: left(l.time) }} title={l.sentence} aria-label={`Near miss of target ${l.target} at ${l.time.toFixed(1)} s`} onClick={() => onMoment(d.id, l.target, l.frame)}>
                      ✕
                    </button>
                  ))}
                {triggers
                  .filter((t) => t.detection === d.id)
                  .map((t) => (
                    <button
                      key={`${t.target ?? ''} ${t.frame}`}
                      type="button"
                      className={`flag${d.id === detection && (t.target ?? null) === target && t.frame === at ? ' chosen' : ''}`}
                      style={{ left: left(t.time) }}
                      aria-label={`Trigger of ${d.name}, ${reasonOf(t)}, at ${t.time.toFixed(1)} s`}
                      title={`${t.time.toFixed(1)} s, ${reasonOf(t)}`}
                      onClick={() => onMoment(d.id, t.target ?? null, t.frame)}
                    />
                  ))}
              </div>
            </div>
          ))}
          {spans.length === 0 && clip.state === 'ready' && <p className="quiet lane-note">No targets were found in this clip.</p>}
          {spans.map((span) => {
            const ladder = ladders.find((l) => l.target === span.id && l.time >= span.from - 1e-6 && l.time <= span.to + 1e-6)
            return (
              <div key={`${span.id} ${span.from}`} className={`lane target-lane${span.id === target ? ' chosen' : ''}`}>
                <span className="lane-name">
                  {span.cls} {span.id}
                </span>
                <div className="ground">
                  <button
                    type="button"
                    className={`span ${ladder?.fired || !ladder ? '' : ladder.readings.some((r) => r.gate === 'class' && !r.passed) ? 'not-chosen' : ''}`}
                    style={{ left: left(span.from), width: long(Math.max(span.to - span.from, 1 / clip.fps)) }}
                    aria-label={`${span.cls} ${span.id}, ${span.from.toFixed(1)} to ${span.to.toFixed(1)} s`}
                    onClick={() => onMoment(detection, span.id, ladder?.frame ?? null)}
                  />
                </div>
              </div>
            )
          })}
        </div>
        <PlayheadLine playhead={playhead} stretch={stretch} />
      </div>
    </section>
  )
}

/** The whole clip is no stretch of it. */
const wholeIsNone = (s: Stretch, seconds: number): Stretch | null => (s.to - s.from >= seconds - 1e-6 ? null : s)

const ticksOf = ({ from, to }: Stretch, step: number): number[] => {
  const first = Math.ceil(from / step - 1e-9)
  return Array.from({ length: Math.max(0, Math.floor(to / step + 1e-9) - first + 1) }, (_, i) => Math.round((first + i) * step * 10) / 10)
}

/** A listener of the element's own, as React's cannot keep the page from zooming. `turn` says whether it used the wheel. */
function useWheel(element: React.RefObject<HTMLElement | null>, turn: (event: WheelEvent, share: number) => boolean): void {
  const latest = useRef(turn)
  useEffect(() => {
    latest.current = turn
  })
  useEffect(() => {
    const host = element.current
    const onWheel = (event: WheelEvent): void => {
      const scale = host?.querySelector('.scale')?.getBoundingClientRect()
      if (scale && latest.current(event, Math.min(1, Math.max(0, (event.clientX - scale.left) / scale.width)))) event.preventDefault()
    }
    host?.addEventListener('wheel', onWheel, { passive: false })
    return () => host?.removeEventListener('wheel', onWheel)
  }, [element])
}

/** The range that is played again and again: drawn on the scale with Shift, ended by a click on it. */
function LoopBar({ playhead, left, long }: { playhead: Playhead; left: (time: number) => string; long: (seconds: number) => string }): ReactNode {
  const loop = useLoop(playhead)
  if (!loop) return null
  return (
    <div className="loop-lane">
      <button type="button" className="loop" title="Played again and again; click to end it" aria-label={`Loop from ${loop[0].toFixed(1)} to ${loop[1].toFixed(1)} s; end it`} style={{ left: left(loop[0]), width: long(loop[1] - loop[0]) }} onPointerDown={(event) => event.stopPropagation()} onClick={() => playhead.setLoop(null)} />
    </div>
  )
}

/** Only this is drawn again while the clip plays. */
function PlayheadLine({ playhead, stretch: { from, to } }: { playhead: Playhead; stretch: Stretch }): ReactNode {
  const time = useTime(playhead)
  return (
    <div className="playhead-track" aria-hidden="true">
      {time >= from - 1e-6 && time <= to + 1e-6 && <i style={{ left: `${(100 * (time - from)) / (to - from)}%` }} />}
    </div>
  )
}
