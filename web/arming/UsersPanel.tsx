import { type Said, said } from '../../core/messages/said.ts'
import { usersPanel as msg } from '../../core/messages/en/arming.ts'
import { Select } from 'antd'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { SiteActionsView, SiteInput } from '../../core/api.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'
import { keyOf, type SiteDocument, type SiteState } from '../sync/siteDocument.ts'
import type { Placed } from '../sync/kinds.ts'

const NO_INPUT = ''

/** The detections that have these hours, each with its arm input; and others, to be given them. */
export function UsersPanel({
  schedule,
  state,
  document,
  view,
  users
}: {
  schedule: Schedule
  state: SiteState
  document: SiteDocument
  view: SiteActionsView
  users: readonly Placed[]
}): ReactNode {
  const cameraName = (id: string): string => view.site.cameras.find((c) => c.id === id)?.name ?? id
  const others = state.detections.filter((d) => !users.includes(d))
  const edit = (d: Placed, change: Partial<Detection>, label: Said): void =>
    document.edit(label, [
      `detection:${keyOf(d)}`,
      { ...d, detection: { ...d.detection, ...change } as Detection }
    ])
  return (
    <section className="arming-section" aria-label={msg.detectionsWithThisSchedule}>
      <h2>{msg.detectionsWithThisSchedule}</h2>
      {users.length === 0 && <p className="quiet">{msg.noneYet}</p>}
      <ul className="arming-users">
        {users.map((d) => (
          <li key={keyOf(d)}>
            <Link to={`/bench/${d.camera}?detection=${d.detection.id}`}>{d.detection.name}</Link>{' '}
            <span className="quiet">{cameraName(d.camera)}</span>
            <InputChoice
              inputs={view.site.inputs}
              detection={d.detection}
              onChange={(armInput) =>
                edit(
                  d,
                  { armInput },
                  armInput
                    ? said('edits.armInputOf', d.detection.name)
                    : said('edits.noArmInputFor', d.detection.name)
                )
              }
            />
          </li>
        ))}
      </ul>
      {others.length > 0 && (
        <Select
          size="small"
          className="give-hours"
          aria-label={msg.useThisScheduleFor}
          placeholder={msg.useFor(schedule.name)}
          value={null}
          options={others.map((d) => ({
            value: keyOf(d),
            label: `${d.detection.name}, ${cameraName(d.camera)}`
          }))}
          onChange={(key: string | null) => {
            const d = others.find((x) => keyOf(x) === key)
            if (d)
              edit(d, { schedule: schedule.id }, said('edits.for', schedule.name, d.detection.name))
          }}
        />
      )}
    </section>
  )
}

/** Whether a contact must be set, or must not be, besides the hours. */
function InputChoice({
  inputs,
  detection,
  onChange
}: {
  inputs: readonly SiteInput[]
  detection: Detection
  onChange: (armInput: Detection['armInput']) => void
}): ReactNode {
  if (!inputs.length) return null
  const value = detection.armInput
    ? `${detection.armInput.inverted ? 'not ' : ''}${detection.armInput.input}`
    : NO_INPUT
  return (
    <Select
      size="small"
      aria-label={msg.contactFor(detection.name)}
      value={value}
      options={[
        { value: NO_INPUT, label: msg.noContact },
        ...inputs.flatMap(({ id, name }) => [
          { value: id, label: msg.whileIsSet(name) },
          { value: `not ${id}`, label: msg.whileIsNotSet(name) }
        ])
      ]}
      onChange={(next: string) =>
        onChange(
          next === NO_INPUT
            ? undefined
            : { input: next.replace(/^not /, ''), inverted: next.startsWith('not ') }
        )
      }
    />
  )
}
