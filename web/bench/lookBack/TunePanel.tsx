import { scaleNames, tune as msg } from '../../../core/messages/en/bench/lookBack.ts'
import './lookBack.css'
import { useState, type ReactNode } from 'react'
import { Button, Select } from 'antd'
import type { Detection } from '../../../core/formats/plan.ts'
import { scalesOf, type ScaleName } from '../../../core/tuning/scales.ts'
import { lazyPart } from '../../lazyPart.tsx'
import { useContents } from '../contexts.ts'
import { Later } from '../Later.tsx'
import { RecommendPart } from './RecommendPart.tsx'
import { useMarks } from './useMarks.ts'

const SweepChart = lazyPart(() => import('./SweepChart.tsx'), 'SweepChart')

/** What the last days, and what was marked in them, say of a detection's settings. */
export function TunePanel({ detection }: { detection: Detection }): ReactNode {
  const { view, measured } = useContents()
  const { marks } = useMarks(view.camera.id)
  const [setting, setSetting] = useState<ScaleName | null>(null)
  const own = marks.filter((m) => m.detection === detection.id)
  const count = (kind: string): number => own.filter(({ mark }) => mark === kind).length
  const scales = scalesOf(detection, measured)
  const scale = scales.find(({ name }) => name === setting)
  return (
    <section className="tune" aria-label={msg.tune}>
      <h3>{msg.tune}</h3>
      <p className="quiet">
        {own.length ? msg.marks(count('wanted'), count('nuisance')) : msg.noMarks}
      </p>
      <div className="row">
        <Select
          size="small"
          aria-label={msg.setting}
          placeholder={msg.sweep}
          value={setting}
          allowClear
          popupMatchSelectWidth={false}
          onChange={(name) => setSetting(name ?? null)}
          options={scales.map(({ name }) => ({ value: name, label: scaleNames[name] }))}
        />
        {setting !== null && (
          <Button size="small" type="link" onClick={() => setSetting(null)}>
            {msg.close}
          </Button>
        )}
      </div>
      {scale && (
        <Later>
          <SweepChart key={scale.name} detection={detection} scale={scale} />
        </Later>
      )}
      <RecommendPart detection={detection} />
    </section>
  )
}
