import { units } from '../../core/messages/en/common.ts'
import { sizesChart as msg } from '../../core/messages/en/kinds/parts.ts'
import './kinds.css'
import { useMemo, type ReactNode } from 'react'
import { ReferenceLine, ResponsiveContainer, Scatter, ScatterChart, XAxis, YAxis } from 'recharts'
import type { TargetGated } from '../../core/formats/plan.ts'
import type { SeenSize } from '../../core/tuning/sizes.ts'

/** A point where the chart puts it. */
interface Dot {
  cx?: number
  cy?: number
  payload?: { fill: string; strength: number }
}

/** Heights against how far away the feet are, far on the left; what is at the shape stands out. */
export function SizesChart({
  sizes,
  detection,
  inMetres
}: {
  sizes: readonly SeenSize[]
  detection: TargetGated
  inMetres: boolean
}): ReactNode {
  const { classes, size = {} } = detection
  const points = useMemo(
    () =>
      sizes.flatMap((s) =>
        inMetres && s.metres === null
          ? []
          : [
              {
                x: Math.round(s.foot * 1000) / 10,
                y: inMetres ? s.metres! : Math.round(s.h * 1000) / 10,
                fill:
                  s.atShape && (!classes.length || classes.includes(s.cls))
                    ? 'var(--ink)'
                    : 'var(--slate)',
                strength: s.atShape && (!classes.length || classes.includes(s.cls)) ? 0.9 : 0.35
              }
            ]
      ),
    [sizes, classes, inMetres]
  )
  const limits = (
    inMetres
      ? [size.minMetres, size.maxMetres]
      : [size.min && size.min.h * 100, size.max && size.max.h * 100]
  ).filter((v) => v !== undefined)
  const wanted = new Set(
    sizes
      .filter((s) => s.atShape && (!classes.length || classes.includes(s.cls)))
      .map((s) => s.target)
  ).size
  return (
    <figure className="stays-chart">
      <div role="img" aria-label={msg.heights(new Set(sizes.map((s) => s.target)).size, wanted)}>
        <ResponsiveContainer width="100%" height={150}>
          <ScatterChart margin={{ top: 6, right: 16, bottom: 0, left: 0 }}>
            <XAxis
              dataKey="x"
              type="number"
              domain={[0, 100]}
              unit="%"
              tickCount={5}
              tick={{ fontSize: 11, fill: 'var(--quiet)' }}
              stroke="var(--hairline)"
            />
            <YAxis
              dataKey="y"
              type="number"
              unit={inMetres ? units.spacedM : '%'}
              width={46}
              tick={{ fontSize: 11, fill: 'var(--quiet)' }}
              stroke="var(--hairline)"
            />
            <Scatter
              data={points}
              isAnimationActive={false}
              legendType="none"
              shape={({ cx, cy, payload }: Dot) => (
                <circle
                  cx={cx}
                  cy={cy}
                  r={2.5}
                  fill={payload?.fill}
                  fillOpacity={payload?.strength}
                />
              )}
            />
            {limits.map((y) => (
              <ReferenceLine
                key={y}
                y={y}
                stroke="var(--saffron)"
                strokeWidth={2}
                strokeDasharray="5 3"
              />
            ))}
          </ScatterChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="quiet">{msg.heightOfEach}</figcaption>
    </figure>
  )
}
