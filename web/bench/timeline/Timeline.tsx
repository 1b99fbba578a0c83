import { timeline as msg } from '../../../core/messages/en/bench/timeline.ts'
import './timeline.css'
import '../bench.css'
import {
  memo,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type CSSProperties,
  type PointerEvent,
  type ReactNode
} from 'react'
import { minuteOfDay, timeOfDay } from '../../../core/messages/format.ts'
import { offsetAt } from '../../../core/arming/zone.ts'
import type { ClipView } from '../../../core/api.ts'
import { useChoice, useContents, useEvaluated, useOnShow } from '../contexts.ts'
import { useLoop, useTime, type Playhead } from '../playhead.ts'
import { DetectionLane, TargetLanes, placeOf, type When } from './Lanes.tsx'
import { panned, showing, zoomed, type Stretch } from './span.ts'

export interface TimelineProps {
  clip: ClipView
  /** The shape of the selected detection is being dragged. */
  dragging: boolean
}

const NOTHING: readonly never[] = []
const LABELS = 132
/** Heights as in timeline.css, px: of the ruler with what is left free below all lanes, and of a detection's lane. */
const RULER = 36
const DETECTION_LANE = 29
const LOWEST_LANE = 18
const HIGHEST_LANE = 32
const STEPS = [0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600]

/** Under the picture: a row for each detection with its triggers, a row for each target, and the playhead. */
export const Timeline = memo(function Timeline({ clip, dragging }: TimelineProps): ReactNode {
  const { view, placed, schedules } = useContents()
  const { playhead, spans, back } = useOnShow()
  const { selection, chooseDetection, showMoment } = useChoice()
  const { triggersOf, ladders, timed } = useEvaluated()
  const { detection, target, frame } = selection
  const rows = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(0)
  const [height, setHeight] = useState(0)
  const seconds = Math.max(clip.frames / clip.fps, 0.1)
  useLayoutEffect(() => {
    const element = rows.current
    if (!element) return
    const observer = new ResizeObserver(() => {
      setWidth(Math.max(0, element.clientWidth - LABELS - 16))
      setHeight(element.clientHeight)
    })
    observer.observe(element)
    return () => observer.disconnect()
  }, [])

  const [chosen, setStretch] = useState<Stretch | null>(null)
  const stretch = useMemo(() => chosen ?? { from: 0, to: seconds }, [chosen, seconds])
  const shown = stretch.to - stretch.from
  const [ofClip, setOfClip] = useState(clip.id)
  if (ofClip !== clip.id) {
    setOfClip(clip.id)
    setStretch(null)
  }
  // The moment on show stays in sight, also while it plays.
  useEffect(() => {
    if (chosen)
      return playhead.subscribe(() =>
        setStretch((now) => now && showing(now, playhead.time, seconds))
      )
  }, [chosen, playhead, seconds])
  useWheel(rows, (event, share) => {
    if (event.ctrlKey || event.metaKey)
      setStretch(
        wholeIsNone(
          zoomed(stretch, Math.exp(-event.deltaY * 0.004), stretch.from + share * shown, seconds),
          seconds
        )
      )
    else if (event.deltaX || event.shiftKey)
      setStretch(
        wholeIsNone(
          panned(stretch, ((event.deltaX || event.deltaY) / Math.max(width, 1)) * shown, seconds),
          seconds
        )
      )
    else return false
    return true
  })
  const zoom = (factor: number): void =>
    setStretch(
      wholeIsNone(
        zoomed(
          stretch,
          factor,
          Math.min(stretch.to, Math.max(stretch.from, playhead.time)),
          seconds
        ),
        seconds
      )
    )

  // Few targets have higher lanes, which are hit more easily; many scroll.
  const room = height - RULER - placed.length * DETECTION_LANE
  const lane = Math.round(
    Math.min(HIGHEST_LANE, Math.max(LOWEST_LANE, room / Math.max(1, spans.length) - 1))
  )

  // The time of the day needs more room.
  const step = STEPS.find((s) => (s / shown) * width >= (back ? 72 : 52)) ?? 7200
  // The labels of the past are on whole hours of the site's clock.
  const ahead = back ? clip.start / 1000 + 60 * offsetAt(view.site.timeZone, clip.start) : 0
  const { left, long } = useMemo(() => placeOf(stretch), [stretch])
  const when = useMemo<When>(
    () =>
      back
        ? (time) => timeOfDay(clip.start + 1000 * time, view.site.timeZone)
        : (time, unit = true) => `${time.toFixed(1)}${unit ? ' s' : ''}`,
    [back, clip.start, view.site.timeZone]
  )
  const axis = useMemo(
    () => ({ site: view.site, clip, stretch, width, when }),
    [view.site, clip, stretch, width, when]
  )
  const moment = useMemo(() => ({ target, frame }), [target, frame])
  const timeAt = (event: PointerEvent<HTMLElement>): number => {
    const box = event.currentTarget.getBoundingClientRect()
    return Math.min(
      seconds,
      Math.max(0, stretch.from + ((event.clientX - box.left) / box.width) * shown)
    )
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

  return (
    <section className="timeline" aria-label={msg.timeline} ref={rows}>
      <div className="timeline-content">
        <div className="ruler">
          <span className="timeline-tools">
            <button
              type="button"
              aria-label={msg.zoomOut}
              disabled={!chosen}
              onClick={() => zoom(0.5)}
            >
              −
            </button>
            <button type="button" aria-label={msg.zoomIn} onClick={() => zoom(2)}>
              +
            </button>
            {chosen && (
              <button type="button" onClick={() => setStretch(null)}>
                {back ? msg.wholeRange : msg.wholeClip}
              </button>
            )}
          </span>
          <div className="scale" onPointerDown={scrub} onPointerMove={scrub}>
            <LoopBar playhead={playhead} left={left} long={long} />
            {ticksOf(stretch, step, ahead).map((tick) => (
              <span key={tick} className="figures" style={{ left: left(tick) }}>
                {back
                  ? (step < 60 ? timeOfDay : minuteOfDay)(
                      clip.start + 1000 * tick,
                      view.site.timeZone
                    )
                  : step < 60
                    ? tick
                    : `${Math.floor(tick / 60)}:${String(tick % 60).padStart(2, '0')}`}
              </span>
            ))}
          </div>
        </div>
        <div className="lanes" style={{ '--lane-height': `${lane}px` } as CSSProperties}>
          {placed.map(({ detection: d }, index) => (
            <DetectionLane
              key={d.id}
              detection={d}
              index={index}
              schedule={schedules.find(({ id }) => id === d.schedule) ?? null}
              axis={axis}
              triggers={triggersOf.get(d.id) ?? NOTHING}
              timed={timed.get(d.id) ?? NOTHING}
              ladders={d.id === detection ? ladders : NOTHING}
              chosen={d.id === detection ? moment : null}
              dragging={dragging && d.id === detection}
              onDetection={chooseDetection}
              onMoment={showMoment}
            />
          ))}
          {spans.length === 0 && clip.state === 'ready' && (
            <p className="quiet lane-note">{back ? msg.noTargetsInRange : msg.noTargetsInThis}</p>
          )}
          <TargetLanes
            spans={spans}
            ladders={ladders}
            detection={detection}
            target={target}
            fps={clip.fps}
            stretch={stretch}
            when={when}
            onMoment={showMoment}
          />
        </div>
        <PlayheadLine playhead={playhead} stretch={stretch} />
      </div>
    </section>
  )
})

/** The whole clip is no stretch of it. */
const wholeIsNone = (s: Stretch, seconds: number): Stretch | null =>
  s.to - s.from >= seconds - 1e-6 ? null : s

/** @param ahead seconds by which the clock of the labels is ahead of the clip's own */
const ticksOf = ({ from, to }: Stretch, step: number, ahead: number): number[] => {
  const first = Math.ceil((from + ahead) / step - 1e-9)
  return Array.from(
    { length: Math.max(0, Math.floor((to + ahead) / step + 1e-9) - first + 1) },
    (_, i) => Math.round(((first + i) * step - ahead) * 10) / 10
  )
}

/**
 * A listener of the element's own, as React's cannot keep the page from zooming. `turn` says
 * whether it used the wheel.
 */
function useWheel(
  element: React.RefObject<HTMLElement | null>,
  turn: (event: WheelEvent, share: number) => boolean
): void {
  const latest = useRef(turn)
  useEffect(() => {
    latest.current = turn
  })
  useEffect(() => {
    const host = element.current
    const onWheel = (event: WheelEvent): void => {
      const scale = host?.querySelector('.scale')?.getBoundingClientRect()
      if (
        scale &&
        latest.current(event, Math.min(1, Math.max(0, (event.clientX - scale.left) / scale.width)))
      )
        event.preventDefault()
    }
    host?.addEventListener('wheel', onWheel, { passive: false })
    return () => host?.removeEventListener('wheel', onWheel)
  }, [element])
}

/** The range that is played again and again: drawn on the scale with Shift, ended by a click on it. */
function LoopBar({
  playhead,
  left,
  long
}: {
  playhead: Playhead
  left: (time: number) => string
  long: (seconds: number) => string
}): ReactNode {
  const loop = useLoop(playhead)
  if (!loop) return null
  return (
    <div className="loop-lane">
      <button
        type="button"
        className="loop"
        title={msg.loopingClickToStop}
        aria-label={msg.loopingToSClick(loop[0].toFixed(1), loop[1].toFixed(1))}
        style={{ left: left(loop[0]), width: long(loop[1] - loop[0]) }}
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => playhead.setLoop(null)}
      />
    </div>
  )
}

/** Only this is drawn again while the clip plays. */
function PlayheadLine({
  playhead,
  stretch: { from, to }
}: {
  playhead: Playhead
  stretch: Stretch
}): ReactNode {
  const time = useTime(playhead)
  return (
    <div className="playhead-track" aria-hidden="true">
      {time >= from - 1e-6 && time <= to + 1e-6 && (
        <i style={{ left: `${(100 * (time - from)) / (to - from)}%` }} />
      )}
    </div>
  )
}
