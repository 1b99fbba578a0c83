import { scaleNames, tune as msg } from '../../../core/messages/en/bench/lookBack.ts'
import './lookBack.css'
import { useQuery } from '@tanstack/react-query'
import { Alert, Button } from 'antd'
import { useState, type ReactNode } from 'react'
import { Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import { number } from '../../../core/messages/format.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { said } from '../../../core/messages/said.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import type { SweepView } from '../../../core/marks/views.ts'
import type { Scale } from '../../../core/tuning/scales.ts'
import { request } from '../../api/client.ts'
import { useContents } from '../contexts.ts'
import { useDrawn } from './drawn.ts'

const DAY_MS = 86_400_000
/** Strokes that can be told apart without colour. */
const CURVES = [
  { key: 'wanted', stroke: 'var(--accent)', dash: undefined },
  { key: 'nuisance', stroke: 'var(--plum)', dash: '6 3' },
  { key: 'unmarked', stroke: 'var(--slate)', dash: '2 3' }
] as const

const perDay = (value: number): string => number(Math.round(value * 10) / 10)

/** One setting over its range: triggers a day by what was marked, to click a value and take it. */
export function SweepChart({
  detection,
  scale
}: {
  detection: Detection
  scale: Scale
}): ReactNode {
  const { view, document } = useContents()
  const drawn = useDrawn(detection)
  const body = { ...drawn, detection: { ...detection, note: undefined }, setting: scale.name }
  const [picked, setPicked] = useState<number | null>(null)
  const { data, error } = useQuery({
    queryKey: ['sweep', view.camera.id, JSON.stringify(body)],
    queryFn: ({ signal }) =>
      request<SweepView>(
        'POST',
        `/cameras/${encodeURIComponent(view.camera.id)}/look-back/sweep`,
        body,
        { signal }
      ),
    staleTime: DAY_MS
  })
  if (error) return <Alert type="error" title={problemWords(error)} />
  if (!data) return <p className="quiet">{msg.sweeping}</p>
  const days = Math.max(data.heardMs / DAY_MS, 1 / 24)
  const points = data.swept.map((s, i) => ({
    i,
    value: s.value,
    wanted: s.wanted / days,
    nuisance: s.nuisance / days,
    unmarked: s.unmarked / days
  }))
  const present = points.findIndex(({ value }) => value === scale.get(detection))
  const shown = points[picked ?? present]
  const take = (value: number): void =>
    document.edit(scale.set(detection, value), said('edits.edit', detection.name))
  return (
    <div>
      <div className="sweep-chart">
        <ResponsiveContainer width="100%" height={150}>
          <LineChart
            data={points}
            margin={{ top: 6, right: 6, bottom: 0, left: 0 }}
            onClick={({ activeLabel }) => {
              if (activeLabel !== undefined) setPicked(Number(activeLabel))
            }}
          >
            <XAxis
              dataKey="i"
              type="number"
              domain={[0, points.length - 1]}
              tickFormatter={(i: number) => number(points[Math.round(i)]?.value ?? 0)}
              tick={{ fontSize: 11, fill: 'var(--quiet)' }}
              stroke="var(--hairline)"
            />
            <YAxis
              width={30}
              tickCount={4}
              tick={{ fontSize: 11, fill: 'var(--quiet)' }}
              stroke="var(--hairline)"
            />
            <ReferenceLine x={present} stroke="var(--ink)" />
            {picked !== null && <ReferenceLine x={picked} stroke="var(--accent)" />}
            {CURVES.map(({ key, stroke, dash }) => (
              <Line
                key={key}
                dataKey={key}
                stroke={stroke}
                strokeWidth={2}
                {...(dash && { strokeDasharray: dash })}
                dot={false}
                isAnimationActive={false}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </div>
      <p className="quiet sweep-legend">
        {CURVES.map(({ key, stroke, dash }) => (
          <span key={key}>
            <svg width="22" height="6" aria-hidden="true">
              <path d="M0 3h22" stroke={stroke} strokeWidth="2" strokeDasharray={dash} />
            </svg>{' '}
            {msg[key]}
          </span>
        ))}
      </p>
      {shown && (
        <p>
          {msg.atValue(
            number(shown.value),
            perDay(shown.wanted),
            perDay(shown.nuisance),
            perDay(shown.unmarked)
          )}
        </p>
      )}
      {shown && picked !== null && picked !== present && (
        <Button size="small" type="primary" onClick={() => take(shown.value)}>
          {msg.take(scaleNames[scale.name], number(shown.value))}
        </Button>
      )}
    </div>
  )
}
