import { wordsOf } from '../../../core/messages/words.ts'
import { curvePanel as msg } from '../../../core/messages/en/bench/curve.ts'
import './curve.css'
import '../bench.css'
import { useMemo, type PointerEvent, type ReactNode } from 'react'
import {
  Line,
  LineChart,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis
} from 'recharts'
import type { FrameTrace } from '../../../core/detections/index.ts'
import { useTime, type Playhead } from '../playhead.ts'

/** More points than this cannot be told apart on a laptop's screen. */
const MAX_POINTS = 700
/** Strokes that can be told apart without colour, and colours that are the roles of the style sheet. */
const strokes = [
  { stroke: 'var(--ink)', strokeDasharray: undefined },
  { stroke: 'var(--accent)', strokeDasharray: '7 3' },
  { stroke: 'var(--plum)', strokeDasharray: '2 3' },
  { stroke: 'var(--rust)', strokeDasharray: '10 3 2 3' },
  { stroke: 'var(--slate)', strokeDasharray: '1 2' }
]

interface Point {
  time: number
  [curve: `c${number}`]: number
}

/** The greatest value of each stretch, so that a short peak is never left out. */
function thinned({ curves, fps }: FrameTrace): Point[] {
  const length = curves[0]?.values.length ?? 0
  const step = Math.max(1, Math.ceil(length / MAX_POINTS))
  return Array.from({ length: Math.ceil(length / step) }, (_, i) => {
    const point: Point = { time: (i * step) / fps }
    curves.forEach(
      (curve, c) => (point[`c${c}`] = Math.max(...curve.values.subarray(i * step, (i + 1) * step)))
    )
    return point
  })
}

/**
 * What a detection of whole frames measured over the clip, against its limit; the moment on show
 * can be chosen on it.
 */
export function CurvePanel({
  trace,
  seconds,
  playhead
}: {
  trace: FrameTrace
  seconds: number
  playhead: Playhead
}): ReactNode {
  const points = useMemo(() => thinned(trace), [trace])
  const { curves, episodes } = trace
  const top = useMemo(
    () =>
      Math.max(
        ...curves.map((c) => c.limit * 1.4),
        ...points.flatMap((p) => curves.map((_, i) => p[`c${i}`]!))
      ),
    [points, curves]
  )
  const seek = (event: PointerEvent<HTMLDivElement>): void => {
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId)
    else if (!event.currentTarget.hasPointerCapture(event.pointerId)) return
    const box = event.currentTarget.getBoundingClientRect()
    playhead.pause()
    playhead.seek(Math.max(0, ((event.clientX - box.left) / box.width) * seconds))
  }
  const { unit, limit } = curves[0]!
  return (
    <section className="curve" aria-label={msg.measuredCurve}>
      <div className="curve-names">
        {curves.map((curve, i) => (
          <span key={i} title={wordsOf(curve.name)}>
            <svg width="22" height="8" aria-hidden="true">
              <line x1="0" x2="22" y1="4" y2="4" strokeWidth="2" {...strokes[i]} />
            </svg>
            {wordsOf(curve.name)}
          </span>
        ))}
        <span className="quiet figures">{msg.limit(Math.round(limit * 10) / 10, unit)}</span>
      </div>
      <div className="curve-plot" onPointerDown={seek} onPointerMove={seek}>
        <ResponsiveContainer width="100%" height="100%">
          <LineChart
            data={points}
            margin={{ top: 6, right: 0, bottom: 0, left: 0 }}
            accessibilityLayer={false}
          >
            <XAxis dataKey="time" type="number" domain={[0, seconds]} hide />
            <YAxis domain={[0, top]} hide />
            {episodes.map((e) => (
              <ReferenceArea
                key={e.from}
                x1={e.from}
                x2={Math.min(seconds, e.to + 1 / trace.fps)}
                fill="var(--plum)"
                fillOpacity={0.14}
              />
            ))}
            <ReferenceLine y={limit} stroke="var(--rust)" strokeDasharray="6 4" strokeWidth={1.5} />
            {curves.map((_, i) => (
              <Line
                key={i}
                dataKey={`c${i}`}
                dot={false}
                isAnimationActive={false}
                strokeWidth={1.6}
                {...strokes[i]}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
        <CurvePlayhead playhead={playhead} seconds={seconds} />
      </div>
    </section>
  )
}

function CurvePlayhead({ playhead, seconds }: { playhead: Playhead; seconds: number }): ReactNode {
  const time = useTime(playhead)
  return (
    <i
      className="curve-playhead"
      style={{ left: `${(100 * time) / seconds}%` }}
      aria-hidden="true"
    />
  )
}
