import { wordsOf } from '../../core/messages/words.ts'
import { isItArmed as msg } from '../../core/messages/en/arming.ts'
import { Button } from 'antd'
import { useState, type ReactNode } from 'react'
import { armedAt, scheduleAt } from '../../core/arming/armedNow.ts'
import type { ArmInputs } from '../../core/arming/armInputs.ts'
import type { Schedule, SitePosition } from '../../core/formats/plan.ts'
import type { SiteInput } from '../../core/api.ts'
import type { Placed } from '../sync/kinds.ts'
import { MomentPicker } from '../words/MomentPicker.tsx'

/** Whether the hours on show, and each detection that has them, are armed at any instant, and why. */
export function IsItArmed({
  schedule,
  detections,
  schedules,
  site,
  contacts,
  now
}: {
  schedule: Schedule | null
  detections: readonly Placed[]
  schedules: readonly Schedule[]
  site: { timeZone: string; position: SitePosition | null; inputs: readonly SiteInput[] }
  contacts: Readonly<Record<string, boolean | null>>
  now: number
}): ReactNode {
  const [asked, setAsked] = useState<number | null>(null)
  const clock = { timeZone: site.timeZone, position: site.position ?? undefined }
  const instant = asked ?? now
  // What contacts are at another time nobody knows: they are taken as they are now.
  const inputs: ArmInputs = Object.fromEntries(
    Object.entries(contacts).map(([id, set]) => [id, set === null ? [] : [{ at: 0, set }]])
  )
  const nameOf = (id: string): string => site.inputs.find((i) => i.id === id)?.name ?? id
  const withInput = detections.filter(({ detection: d }) => d.armInput || !d.enabled)
  const answer = scheduleAt(schedule ?? undefined, clock, instant)
  return (
    <section className="is-it-armed" aria-label={msg.isItArmed}>
      <header className="row">
        <h2>{msg.isItArmed}</h2>
        <Button size="small" type="text" disabled={asked === null} onClick={() => setAsked(null)}>
          {msg.now}
        </Button>
      </header>
      <MomentPicker
        size="small"
        label={msg.atThisTimeOnThe}
        value={instant}
        timeZone={site.timeZone}
        required
        onChange={setAsked}
      />
      <p role="status" className={answer.armed ? 'armed-answer yes' : 'armed-answer'}>
        <strong>{answer.armed ? msg.yes : msg.no}</strong>: {wordsOf(answer.words)}
      </p>
      {withInput.map(({ camera, detection }) => {
        const own = armedAt(detection, schedules, clock, inputs, instant, nameOf)
        return (
          <p key={`${camera} ${detection.id}`} className="quiet">
            <b>{detection.name}</b>: {own.armed && `${msg.yes2}; `}
            {wordsOf(own.words)}
          </p>
        )
      })}
    </section>
  )
}
