import { said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { gapsPanel as msg } from '../../core/messages/en/arming.ts'
import { Button } from 'antd'
import type { ReactNode } from 'react'
import { Rich } from '../words/Rich.tsx'
import type { SiteHours } from '../../core/arming/coverage.ts'
import { saidStretch } from '../../core/arming/stretches.ts'
import type { Endpoint } from '../../core/formats/actions.ts'
import type { Schedule } from '../../core/formats/plan.ts'
import { keyOf, type SiteDocument, type SiteState } from '../sync/siteDocument.ts'
import { weekHours } from './words.ts'
import type { Placed } from '../sync/kinds.ts'

const MAX_STRETCHES = 3

/** What is linked to detections with these hours, and where its own hours do not meet them. */
export function GapsPanel({
  schedule,
  state,
  document,
  hours,
  users,
  rails
}: {
  schedule: Schedule
  state: SiteState
  document: SiteDocument
  hours: SiteHours
  users: readonly Placed[]
  rails: readonly string[]
}): ReactNode {
  const linked = linkedTo(users, state)
  const scheduleName = (id: string | undefined): string =>
    state.schedules.find((s) => s.id === id)?.name ?? msg.always
  if (!users.length)
    return (
      <section className="arming-section" aria-label={msg.scheduleGaps}>
        <h2>{msg.scheduleGaps}</h2>
        <p className="quiet">{msg.noDetectionUsesThis}</p>
      </section>
    )
  if (!linked.length)
    return (
      <section className="arming-section" aria-label={msg.scheduleGaps}>
        <h2>{msg.scheduleGaps}</h2>
        <p className="quiet">{msg.theDetectionsWithTheseHours}</p>
      </section>
    )
  const free = linked.filter((e) => e.schedule === undefined)
  const own = linked.filter((e) => e.schedule !== undefined)
  const accepted = (e: Endpoint): boolean =>
    usersOf(e, users, state).every((d) => document.actionsOf(keyOf(d)).accepted.includes(e.id))
  return (
    <section className="arming-section gaps" aria-label={msg.scheduleGaps}>
      <h2>{msg.scheduleGaps}</h2>
      {own.map((e) => {
        const { armed, acting } = hours.coverage(schedule.id, e.schedule)
        const rail = rails.indexOf(e.id)
        const mark = rail >= 0 && <i className={`rail-mark rail-${rail}`} aria-hidden="true" />
        const named = { action: <b>{e.name}</b>, schedule: scheduleName(e.schedule) }
        if (armed - acting < 1)
          return (
            <p key={e.id}>
              {mark} <Rich text={msg.noGap} parts={named} />
            </p>
          )
        const { minutesPerWeek, stretches } = hours.silent(schedule.id, e.schedule)
        return (
          <div key={e.id} className="gap">
            <p>
              {mark}{' '}
              <Rich
                text={msg.gap}
                parts={{
                  ...named,
                  off: <b className="gap-words">{msg.offFor(weekHours(minutesPerWeek))}</b>,
                  armed: weekHours(armed)
                }}
              />
            </p>
            <ul>
              {stretches.slice(0, MAX_STRETCHES).map((s) => (
                <li key={`${s.weekdays.join()} ${s.dates[0] ?? ''} ${s.spans}`}>
                  {wordsOf(saidStretch(s))}
                </li>
              ))}
              {stretches.length > MAX_STRETCHES && (
                <li>{msg.andMore(stretches.length - MAX_STRETCHES)}</li>
              )}
            </ul>
            {accepted(e) ? (
              <p className="quiet">{msg.markedAsIntended}</p>
            ) : (
              <div className="row wrap">
                <Button
                  size="small"
                  onClick={() =>
                    document.editEndpoint(
                      { ...e, schedule: schedule.id },
                      said('edits.letFollow', e.name, schedule.name)
                    )
                  }
                >
                  {msg.use(schedule.name)}
                </Button>
                <Button
                  size="small"
                  type="text"
                  onClick={() =>
                    document.setActions(
                      usersOf(e, users, state).map(keyOf),
                      (a) => ({ ...a, accepted: [...new Set([...a.accepted, e.id])] }),
                      said('edits.silentHoursAre', e.name)
                    )
                  }
                >
                  {msg.markAsIntended}
                </Button>
              </div>
            )}
          </div>
        )
      })}
      {free.length > 0 && (
        <p className="quiet">{msg.alwaysOn(free.map((e) => e.name).join(', '))}</p>
      )}
      {own.length > 0 && (
        <p className="quiet rail-legend">
          <i className="rail-mark silent" aria-hidden="true" /> {msg.armedButThisAction}
        </p>
      )}
    </section>
  )
}

export const linkedTo = (users: readonly Placed[], state: SiteState): Endpoint[] =>
  state.endpoints.filter((e) => usersOf(e, users, state).length > 0)

const usersOf = (e: Endpoint, users: readonly Placed[], state: SiteState): Placed[] =>
  users.filter((d) => state.actions.get(keyOf(d))?.links.includes(e.id))
