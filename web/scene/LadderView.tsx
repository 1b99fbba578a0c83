import { wordsOf } from '../../core/messages/words.ts'
import { timeOfDay } from '../../core/messages/format.ts'
import { common } from '../../core/messages/en/common.ts'
import { ladderView as msg } from '../../core/messages/en/scene.ts'
import { CheckOutlined, CloseOutlined } from '@ant-design/icons'
import { memo, type ReactNode } from 'react'
import type { GateName, Ladder } from '../../core/detections/index.ts'

const names: Record<GateName, string> = {
  class: common.class,
  size: msg.size,
  ignore: common.ignoreAreas,
  confirm: common.confirmTime,
  direction: common.direction,
  share: common.overlap,
  dwell: common.dwell,
  together: msg.together,
  armed: msg.schedule,
  face: common.face,
  mask: common.mask,
  list: msg.list,
  cells: msg.cells,
  picture: msg.picture,
  contact: common.contact,
  delay: common.delay,
  holdOff: common.reTriggerDelay
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
  who,
  start = null,
  timeZone
}: {
  ladder: Omit<Ladder, 'target'>
  who: string
  /** The instant of the first frame, where moments are told by the clock; null: by seconds, as of a clip. */
  start?: number | null
  timeZone?: string
}): ReactNode {
  return (
    <section className="ladder" aria-label={msg.conditions}>
      <h3>
        {msg.whyWhyNot(ladder.fired, who)}{' '}
        <span className="figures">
          {start === null || timeZone === undefined
            ? msg.s(ladder.time.toFixed(1))
            : timeOfDay(start + 1000 * ladder.time, timeZone)}
        </span>
      </h3>
      <ol>
        {ladder.readings.map((r) => (
          <li key={r.gate} className={r.passed ? 'passed' : 'stopped'}>
            {r.passed ? (
              <CheckOutlined aria-label={msg.met} />
            ) : (
              <CloseOutlined aria-label={msg.notMet} />
            )}
            <span className="gate">{names[r.gate]}</span>
            <span className="measured">
              {wordsOf(r.measured)}
              {r.value !== undefined && r.needed !== undefined && (
                <Gauge value={r.value} needed={r.needed} passed={r.passed} />
              )}
            </span>
            <span className="limit">{wordsOf(r.limit)}</span>
          </li>
        ))}
      </ol>
      {start === null && (
        <p className={ladder.fired ? 'verdict fired' : 'verdict'}>{wordsOf(ladder.sentence)}</p>
      )}
    </section>
  )
})
