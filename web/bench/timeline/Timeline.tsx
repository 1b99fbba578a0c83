import { useCallback, useLayoutEffect, useMemo, useRef, useState, type PointerEvent, type ReactNode } from 'react'
import { armedIntervals } from '../../../core/arming/armedHours.ts'
import { causeWords, isNearMiss, type Ladder, type Trigger } from '../../../core/detections/index.ts'
import type { ClipView, SiteView } from '../../../core/api.ts'
import type { Detection, Schedule } from '../../../core/formats/plan.ts'
import type { TargetSpan } from '../../../core/targets/tracks.ts'
import type { Placed } from '../document.ts'
import { useTime, type Playhead } from '../playhead.ts'
import { kindNames } from '../../kinds.ts'
import { letterOf } from '../words.ts'

export interface TimelineProps {
  clip: ClipView
  site: Omit<SiteView, 'cameras'>
  playhead: Playhead
  placed: Placed[]
  schedules: Schedule[]
  spans: TargetSpan[]
  triggers: Trigger[]
  ladders: Ladder[]
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
  const { clip, site, playhead, placed, schedules, spans, triggers, ladders, detection, target, at, onDetection, onMoment } = props
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

  const step = STEPS.find((s) => (s / seconds) * width >= 52) ?? 7200
  const left = useCallback((time: number): string => `${(100 * time) / seconds}%`, [seconds])
  const scrub = (event: PointerEvent<HTMLElement>): void => {
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId)
    else if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const box = event.currentTarget.getBoundingClientRect()
    playhead.pause()
    playhead.seek(((event.clientX - box.left) / box.width) * seconds)
  }

  const gaps = useMemo(() => new Map(placed.map(({ detection: d }) => [d.id, disarmed(d, schedules, site, clip)])), [placed, schedules, site, clip])
  return (
    <section className="timeline" aria-label="Timeline" ref={rows}>
      <div className="timeline-content">
        <div className="ruler">
          <span />
          <div className="scale" onPointerDown={scrub} onPointerMove={scrub}>
            {Array.from({ length: Math.floor(seconds / step) + 1 }, (_, i) => (
              <span key={i} className="figures" style={{ left: left(i * step) }}>
                {step < 60 ? i * step : `${Math.floor((i * step) / 60)}:${String((i * step) % 60).padStart(2, '0')}`}
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
                  <span key={from} className="disarmed" title={d.enabled ? 'Not armed here' : 'Switched off'} style={{ left: `${from * 100}%`, width: `${(to - from) * 100}%` }} />
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
                    style={{ left: left(span.from), width: left(Math.max(span.to - span.from, 1 / clip.fps)) }}
                    aria-label={`${span.cls} ${span.id}, ${span.from.toFixed(1)} to ${span.to.toFixed(1)} s`}
                    onClick={() => onMoment(detection, span.id, ladder?.frame ?? null)}
                  />
                </div>
              </div>
            )
          })}
        </div>
        <PlayheadLine playhead={playhead} seconds={seconds} />
      </div>
    </section>
  )
}

/** Only this is drawn again while the clip plays. */
function PlayheadLine({ playhead, seconds }: { playhead: Playhead; seconds: number }): ReactNode {
  const time = useTime(playhead)
  return (
    <div className="playhead-track" aria-hidden="true">
      <i style={{ left: `${(100 * time) / seconds}%` }} />
    </div>
  )
}
