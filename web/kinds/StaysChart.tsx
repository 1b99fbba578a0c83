import { units } from '../../core/messages/en/common.ts'
import { staysChart as msg } from '../../core/messages/en/kinds/parts.ts'
import './kinds.css'
import { useMemo, type ReactNode } from 'react'
import { Bar, BarChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import type { ZoneStay } from '../../core/tuning/stays.ts'
import { stayBins } from './stayBins.ts'

/** How long targets stay, passers-by and stayers apart, with the dwell. */
export function StaysChart({
  stays,
  dwell
}: {
  stays: readonly ZoneStay[]
  dwell: number
}): ReactNode {
  const bins = useMemo(() => stayBins(stays, dwell), [stays, dwell])
  const passing = stays.filter((s) => s.passing).length
  const long = stays.filter(({ seconds }) => seconds >= dwell).length
  return (
    <figure className="stays-chart">
      <div role="img" aria-label={msg.howLong(stays.length, passing, stays.length - passing, long)}>
        <ResponsiveContainer width="100%" height={130}>
          <BarChart
            data={bins.bars}
            barCategoryGap={1}
            margin={{ top: 6, right: 16, bottom: 0, left: 0 }}
          >
            <XAxis
              dataKey="middle"
              type="number"
              domain={[0, bins.end]}
              unit={units.spacedS}
              tickCount={6}
              tick={{ fontSize: 11, fill: 'var(--quiet)' }}
              stroke="var(--hairline)"
            />
            <YAxis
              allowDecimals={false}
              width={22}
              tick={{ fontSize: 11, fill: 'var(--quiet)' }}
              stroke="var(--hairline)"
            />
            <Bar dataKey="passing" stackId="stays" fill="var(--slate)" isAnimationActive={false} />
            <Bar dataKey="staying" stackId="stays" fill="var(--ink)" isAnimationActive={false} />
            <ReferenceLine
              x={dwell}
              stroke="var(--saffron)"
              strokeWidth={2}
              strokeDasharray="5 3"
            />
          </BarChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="quiet">
        <i className="passing" aria-hidden="true" /> {msg.passBy(passing)}{' '}
        <i className="staying" aria-hidden="true" /> {msg.stay(stays.length - passing)}{' '}
        <strong>{msg.reach(long, stays.length)}</strong>
      </figcaption>
    </figure>
  )
}
