import { lookBack as msg } from '../../../core/messages/en/bench/lookBack.ts'
import './lookBack.css'
import { LeftOutlined, RightOutlined } from '@ant-design/icons'
import { Alert, Button, Select } from 'antd'
import { memo, useMemo, useRef, useState, type PointerEvent, type ReactNode } from 'react'
import { dateOf, endsOf } from '../../../core/messages/format.ts'
import { armedIntervals } from '../../../core/arming/armedHours.ts'
import { wallInstant, wallText } from '../../../core/arming/zone.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { quantile } from '../../../core/tuning/quantile.ts'
import { CLASSES } from '../../../core/targets/classes.ts'
import { TEN_MINUTES } from '../../../core/lookBack/rows.ts'
import type { StripView } from '../../../core/lookBack/views.ts'
import { useContents } from '../contexts.ts'
import { classes as classNames } from '../../../core/messages/en/codes/conditions.ts'
import { DENSITIES } from '../../../core/targets/density.ts'
import type { Range } from '../selection.ts'
import { AnalyseHere } from './AnalyseHere.tsx'
import type { DensityChoice } from './DensityLayer.tsx'
import { useStrip } from './useLookBack.ts'

const HOUR_MS = 3_600_000
const DAY_MS = 24 * HOUR_MS
const HEIGHT = 44
/** A day that begins farther right than this has no room for its date, percent. */
const LAST_LABEL = 93
/** A camera that was listened to for less than this between two gaps is drawn all the same. */
const LEAST_GAP_MS = 60_000

const snapped = (at: number): number => Math.round(at / TEN_MINUTES) * TEN_MINUTES

/** The last days as a strip: how many targets there were, when nobody listened, and the range that is looked at. */
export const LookBackStrip = memo(function LookBackStrip({
  range,
  schedule,
  onRange,
  density,
  onDensity
}: {
  range: Range | null
  /** The hours of the selected detection; null: always. */
  schedule: string | null
  onRange: (range: Range) => void
  density: DensityChoice | null
  onDensity: (density: DensityChoice | null) => void
}): ReactNode {
  const { view, schedules } = useContents()
  const { timeZone, position } = view.site
  const { data, error } = useStrip(view.camera.id, true)
  const strip = useMemo(() => data && sinceHeard(data, timeZone), [data, timeZone])
  const [dragged, setDragged] = useState<Range | null>(null)
  const from = useRef<number | null>(null)
  const armed = useMemo(() => {
    const hours = schedules.find(({ id }) => id === schedule)
    return strip && hours
      ? armedIntervals(hours, timeZone, position ?? undefined, strip.from, strip.to)
      : null
  }, [schedules, schedule, strip, timeZone, position])
  if (error) return <Alert type="error" title={problemWords(error)} className="look-back-note" />
  if (!strip) return <div className="look-back-strip" aria-busy="true" />
  const first = strip.heard[0]?.[0]
  if (strip.left || first === undefined)
    return (
      <div className="look-back-note">
        <p className="quiet">
          {strip.left ? msg.leftOut : view.live ? msg.nothingYet : msg.noReports}
        </p>
        {!strip.left && view.live && <AnalyseHere camera={view.camera.id} />}
      </div>
    )
  const shown = dragged ?? range
  const at = (event: PointerEvent<HTMLElement>): number => {
    const box = event.currentTarget.getBoundingClientRect()
    const share = Math.min(1, Math.max(0, (event.clientX - box.left) / box.width))
    return snapped(strip.from + share * (strip.to - strip.from))
  }
  /** No longer than a day, on the side that is being dragged. */
  const dragTo = (to: number): Range => {
    const begin = from.current!
    const end = Math.min(begin + DAY_MS, Math.max(begin - DAY_MS, to))
    return { from: Math.min(begin, end), to: Math.max(begin, end) }
  }
  const last = (hours: number): void => {
    const to = Math.ceil(Date.now() / TEN_MINUTES) * TEN_MINUTES
    onRange({ from: to - hours * HOUR_MS, to })
  }
  return (
    <section className="look-back" aria-label={msg.strip}>
      <div className="look-back-line">
        {[
          [1, msg.lastHour],
          [6, msg.lastSixHours],
          [24, msg.lastDay]
        ].map(([hours, words]) => (
          <Button key={hours} size="small" onClick={() => last(Number(hours))}>
            {words}
          </Button>
        ))}
        {range && (
          <>
            <Button
              size="small"
              aria-label={msg.earlier}
              title={msg.earlier}
              icon={<LeftOutlined aria-hidden />}
              onClick={() => onRange(movedBy(range, -1))}
            />
            <Button
              size="small"
              aria-label={msg.later}
              title={msg.later}
              icon={<RightOutlined aria-hidden />}
              onClick={() => onRange(movedBy(range, 1))}
            />
          </>
        )}
        <span className="quiet">
          {shown ? msg.range(...endsOf(shown.from, shown.to, timeZone)) : msg.howToChoose}
        </span>
        <span className="grow" />
        {range && (
          <Select
            size="small"
            aria-label={msg.whereTheyWalk}
            placeholder={msg.whereTheyWalk}
            allowClear
            popupMatchSelectWidth={false}
            value={density ? `${density.of} ${density.cls ?? ''}` : null}
            onChange={(value?: string | null) => {
              const [of, cls] = (value ?? '').split(' ')
              onDensity(
                value
                  ? { of: of as DensityChoice['of'], cls: (cls || null) as DensityChoice['cls'] }
                  : null
              )
            }}
            options={DENSITIES.map((of) => ({
              label: msg.densities[of],
              options: [null, ...CLASSES.filter((cls) => cls !== 'unknown')].map((cls) => ({
                value: `${of} ${cls ?? ''}`,
                label: msg.densityOf(msg.densities[of], cls === null ? null : classNames[cls])
              }))
            }))}
          />
        )}
      </div>
      <div
        className="look-back-strip"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId)
          from.current = at(event)
          setDragged(null)
        }}
        onPointerMove={(event) => {
          if (event.currentTarget.hasPointerCapture(event.pointerId)) setDragged(dragTo(at(event)))
        }}
        onPointerUp={(event) => {
          const to = at(event)
          const chosen = dragTo(to)
          // A click looks at the hour about it.
          onRange(
            chosen.to - chosen.from >= TEN_MINUTES
              ? chosen
              : { from: to - HOUR_MS / 2, to: to + HOUR_MS / 2 }
          )
          setDragged(null)
        }}
      >
        <Bars strip={strip} armed={armed} timeZone={timeZone} />
        {shown && (
          <span
            className="look-back-range"
            style={{
              left: `${share(shown.from, strip)}%`,
              width: `${Math.max(0.3, share(shown.to, strip) - share(shown.from, strip))}%`
            }}
          />
        )}
      </div>
    </section>
  )
})

/** The strip from the day on which the camera was first listened to. */
function sinceHeard(strip: StripView, timeZone: string): StripView {
  const first = strip.heard[0]?.[0] ?? strip.from
  const midnight = wallInstant(`${wallText(first, timeZone).slice(0, 10)}T00:00`, timeZone) ?? first
  return { ...strip, from: Math.max(strip.from, midnight) }
}

/** As long a range before or after one. */
const movedBy = ({ from, to }: Range, by: number): Range => ({
  from: from + by * (to - from),
  to: to + by * (to - from)
})

const share = (at: number, { from, to }: Pick<StripView, 'from' | 'to'>): number =>
  Math.min(100, Math.max(0, (100 * (at - from)) / (to - from)))

/** Everything that does not change while a range is dragged. */
const Bars = memo(function Bars({
  strip,
  armed,
  timeZone
}: {
  strip: StripView
  armed: readonly (readonly [number, number])[] | null
  timeZone: string
}): ReactNode {
  // A crowd of ten minutes does not make all others flat.
  const usual = quantile(
    strip.tens.map(({ counts }) => counts.reduce((a, b) => a + b)),
    0.98
  )
  const most = Math.max(3, usual || 0)
  const x = (at: number): number => 10 * share(at, strip)
  const gaps: [number, number][] = []
  let end = strip.from
  for (const [a, b] of [...strip.heard, [strip.to, strip.to] as const]) {
    if (a - end >= LEAST_GAP_MS) gaps.push([end, a])
    end = Math.max(end, b)
  }
  const width = x(strip.from + TEN_MINUTES)
  return (
    <>
      <svg viewBox={`0 0 1000 ${HEIGHT}`} preserveAspectRatio="none" aria-hidden="true">
        <defs>
          <pattern id="not-heard" width="6" height="6" patternUnits="userSpaceOnUse">
            <path d="M0 6 6 0" stroke="var(--slate)" strokeWidth="0.8" />
          </pattern>
        </defs>
        {armed?.map(([a, b]) => (
          <rect
            key={a}
            className="look-back-armed"
            x={x(a)}
            y={HEIGHT - 4}
            width={x(b) - x(a)}
            height={4}
          />
        ))}
        {gaps.map(([a, b]) => (
          <rect
            key={a}
            x={x(a)}
            y={0}
            width={x(b) - x(a)}
            height={HEIGHT - 5}
            fill="url(#not-heard)"
          >
            <title>{msg.notListened}</title>
          </rect>
        ))}
        {strip.tens.map(({ at, counts }) => {
          let below = 0
          return counts.map((n, cls) => {
            if (!n) return null
            const height = Math.min(n / most, 1) * (HEIGHT - 8)
            if (below + height > HEIGHT - 6) return null
            below += height
            return (
              <rect
                key={`${at} ${CLASSES[cls]}`}
                className={`class-bar ${CLASSES[cls]}`}
                x={x(at)}
                y={HEIGHT - 5 - below}
                width={Math.max(width, 0.8)}
                height={height}
              />
            )
          })
        })}
      </svg>
      {daysOf(strip, timeZone)
        .filter((day) => share(day, strip) < LAST_LABEL)
        .map((day) => (
          <span
            key={day}
            className="look-back-day figures"
            style={{ left: `${share(day, strip)}%` }}
          >
            {dateOf(day, timeZone).replace(/ \d{4}$/, '')}
          </span>
        ))}
    </>
  )
})

/** The midnights of the site in the strip. */
function daysOf({ from, to }: StripView, timeZone: string): number[] {
  const days: number[] = []
  for (let at = from; at < to + DAY_MS; at += DAY_MS) {
    const midnight = wallInstant(`${wallText(at, timeZone).slice(0, 10)}T00:00`, timeZone)
    if (midnight !== null && midnight >= from && midnight < to) days.push(midnight)
  }
  return [...new Set(days)]
}
