import { CheckOutlined, CloseOutlined } from '@ant-design/icons'
import { memo, type ReactNode } from 'react'
import type { GateName, Ladder } from '../../core/detections/index.ts'

const names: Record<GateName, string> = {
  class: 'Class',
  size: 'Size',
  ignore: 'Ignore areas',
  confirm: 'Confirm',
  direction: 'Direction',
  share: 'Body share',
  dwell: 'Dwell',
  together: 'Together',
  armed: 'Armed',
  face: 'Face',
  mask: 'Mask',
  list: 'List',
  cells: 'Cells',
  picture: 'Picture',
  contact: 'Contact',
  delay: 'Delay',
  holdOff: 'Hold-off'
}

/** A measured value against its limit. */
function Gauge({
  value,
  needed,
  passed
}: {
  value: number
  needed: number
  passed: boolean
}): ReactNode {
  const full = Math.max(value, needed, 1e-9) * (needed > 1 ? 1.15 : 1) || 1
  const share = (v: number): string =>
    `${Math.min(100, (100 * v) / Math.max(full, needed <= 1 ? 1 : full))}%`
  return (
    <span className={passed ? 'gauge' : 'gauge stopped'} aria-hidden="true">
      <span style={{ width: share(value) }} />
      <i style={{ left: share(needed) }} />
    </span>
  )
}

/** Which gates let a target, or a frame, through, each with what it measured against what. */
export const LadderView = memo(function LadderView({
  ladder,
  who
}: {
  ladder: Omit<Ladder, 'target'>
  who: string
}): ReactNode {
  return (
    <section className="ladder" aria-label="Gate ladder">
      <h3>
        {ladder.fired ? 'Why' : 'Why not'} {who}, at{' '}
        <span className="figures">{ladder.time.toFixed(1)} s</span>
      </h3>
      <ol>
        {ladder.readings.map((r) => (
          <li key={r.gate} className={r.passed ? 'passed' : 'stopped'}>
            {r.passed ? (
              <CheckOutlined aria-label="let through" />
            ) : (
              <CloseOutlined aria-label="stopped" />
            )}
            <span className="gate">{names[r.gate]}</span>
            <span className="measured">
              {r.measured}
              {r.value !== undefined && r.needed !== undefined && (
                <Gauge value={r.value} needed={r.needed} passed={r.passed} />
              )}
            </span>
            <span className="limit">{r.limit}</span>
          </li>
        ))}
      </ol>
      <p className={ladder.fired ? 'verdict fired' : 'verdict'}>{ladder.sentence}</p>
    </section>
  )
})
