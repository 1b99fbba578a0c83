import { Button, InputNumber, Radio, Switch } from 'antd'
import { useMemo, type ReactNode } from 'react'
import { Bar, BarChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import type { LoiteringDetection } from '../../../core/formats/plan.ts'
import { dwellAbovePassers, type DwellDetection, type ZoneStay } from '../../../core/tuning/stays.ts'
import { kindNames } from '../../kinds.ts'
import { ZONE_KINDS, asZoneKind, type ZoneDetection } from '../picture/shape.ts'
import { secondsWords } from '../words.ts'
import { SecondsEditor, type EditorProps } from './editors.tsx'
import { stayBins } from './stayBins.ts'

const meanings: Record<(typeof ZONE_KINDS)[number], string> = {
  intrusion: 'somebody is in it for as long as the dwell',
  loitering: 'somebody lingers, also with short absences',
  entry: 'somebody comes in from outside',
  exit: 'somebody who was in it goes out'
}

export function ZoneKindEditor({ detection, document }: EditorProps<ZoneDetection>): ReactNode {
  return (
    <Radio.Group
      vertical
      value={detection.kind}
      options={ZONE_KINDS.map((value) => ({ value, label: `${kindNames[value]}: ${meanings[value]}` }))}
      onChange={(e) => document.edit(asZoneKind(detection, e.target.value as ZoneDetection['kind']), `Make it ${kindNames[e.target.value as ZoneDetection['kind']].toLowerCase()}`)}
    />
  )
}

/** The dwell beside how long the clip's targets stay: passers-by and stayers apart. */
export function DwellEditor({ detection, document, stays }: EditorProps<DwellDetection> & { stays: readonly ZoneStay[] | null }): ReactNode {
  const above = useMemo(() => stays && dwellAbovePassers(stays), [stays])
  const set = (dwellSeconds: number): void => document.edit({ ...detection, dwellSeconds }, 'Change the dwell')
  return (
    <>
      <SecondsEditor parameter={detection.dwellSeconds > 0 ? 'TimeThreshold' : undefined} label="Dwell" value={detection.dwellSeconds} min={detection.kind === 'loitering' ? 1 : 0} max={3600} help="How long a target must stay in the zone." onChange={set} />
      {stays === null ? <p className="quiet">With a clip it is shown here how long its targets stay.</p> : stays.length === 0 ? <p className="quiet">On this clip nobody of these classes is in the zone.</p> : <StaysChart stays={stays} dwell={detection.dwellSeconds} />}
      {above && above.dwell !== detection.dwellSeconds && (
        <p>
          Passers-by take up to {secondsWords(above.usual)}.{' '}
          <Button size="small" onClick={() => set(above.dwell)}>
            Set it to {secondsWords(above.dwell)}
          </Button>
        </p>
      )}
      <label className="row">
        <span>Count who is in it when first seen</span>
        <Switch size="small" checked={detection.countFirstSeenInside} onChange={(countFirstSeenInside) => document.edit({ ...detection, countFirstSeenInside }, 'Change who counts')} />
      </label>
    </>
  )
}

function StaysChart({ stays, dwell }: { stays: readonly ZoneStay[]; dwell: number }): ReactNode {
  const bins = useMemo(() => stayBins(stays, dwell), [stays, dwell])
  const passing = stays.filter((s) => s.passing).length
  const long = stays.filter(({ seconds }) => seconds >= dwell).length
  return (
    <figure className="stays-chart">
      <div role="img" aria-label={`How long ${stays.length} targets stay: ${passing} pass by, ${stays.length - passing} stay; ${long} reach the dwell`}>
        <ResponsiveContainer width="100%" height={130}>
          <BarChart data={bins.bars} barCategoryGap={1} margin={{ top: 6, right: 16, bottom: 0, left: 0 }}>
            <XAxis dataKey="middle" type="number" domain={[0, bins.end]} unit=" s" tickCount={6} tick={{ fontSize: 11, fill: 'var(--quiet)' }} stroke="var(--hairline)" />
            <YAxis allowDecimals={false} width={22} tick={{ fontSize: 11, fill: 'var(--quiet)' }} stroke="var(--hairline)" />
            <Bar dataKey="passing" stackId="stays" fill="var(--slate)" isAnimationActive={false} />
            <Bar dataKey="staying" stackId="stays" fill="var(--ink)" isAnimationActive={false} />
            <ReferenceLine x={dwell} stroke="var(--saffron)" strokeWidth={2} strokeDasharray="5 3" />
          </BarChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="quiet">
        <i className="passing" aria-hidden="true" /> {passing} pass by <i className="staying" aria-hidden="true" /> {stays.length - passing} stay; <strong>{long}</strong> of {stays.length} reach the dwell
      </figcaption>
    </figure>
  )
}

export function GraceEditor({ detection, document }: EditorProps<LoiteringDetection>): ReactNode {
  return <SecondsEditor parameter="GraceTime" label="Grace" value={detection.graceSeconds} max={120} help="Who is out of the zone for no longer than this is still lingering." onChange={(graceSeconds) => document.edit({ ...detection, graceSeconds }, 'Change the grace')} />
}

export function AtLeastEditor({ detection, document }: EditorProps<DwellDetection>): ReactNode {
  return (
    <label className="field">
      <span>Targets at the same time</span>
      <InputNumber autoFocus min={1} max={100} precision={0} value={detection.atLeast} onChange={(atLeast) => atLeast !== null && document.edit({ ...detection, atLeast }, 'Change how many')} />
      <span className="quiet">1: each target counts alone. More: one trigger when so many have dwelt in the zone together.</span>
    </label>
  )
}
