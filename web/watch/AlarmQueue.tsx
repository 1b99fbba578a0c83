import { alarm as shared } from '../../core/messages/en/alarms.ts'
import { severities } from '../../core/messages/en/codes/names.ts'
import { alarmQueue as msg, watchPlace } from '../../core/messages/en/watch.ts'
import { DownOutlined, FilterOutlined, RightOutlined } from '@ant-design/icons'
import { Button, Checkbox, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import type { AlarmView } from '../../core/api.ts'
import { SEVERITIES, type Severity } from '../../core/kinds/parts.ts'
import { NO_FILTER, groupAlarms, passes, type AlarmFilter } from '../../core/watch/queue.ts'
import type { WatchView } from '../../core/watch/views.ts'
import { severityOf } from '../alarms/facts.ts'
import { Closed, Flag, Passed } from '../words/signs.tsx'
import { useClock } from '../words/useClock.ts'

interface Props {
  /** In the order in which they are shown. */
  alarms: readonly AlarmView[]
  chosen: AlarmView | null
  cameras: WatchView['cameras']
  filter: AlarmFilter
  onFilter: (filter: AlarmFilter) => void
  onChoose: (alarm: AlarmView) => void
  /** Somebody begins to press on it. */
  onPress: () => void
}

/** The alarms, those of one detection in a row as one; what a filter hides is counted, active ones above all. */
export function AlarmQueue({
  alarms,
  chosen,
  cameras,
  filter,
  onFilter,
  onChoose,
  onPress
}: Props): ReactNode {
  const [open, setOpen] = useState(false)
  const shown = alarms.filter((a) => a === chosen || passes(filter, a))
  const hidden = alarms.filter((a) => !shown.includes(a))
  const active = hidden.filter((a) => a.state === 'waiting').length
  return (
    <>
      <div className="queue-tools">
        <Button
          size="small"
          type="text"
          icon={<FilterOutlined aria-hidden />}
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {msg.filters}
        </Button>
        {hidden.length > 0 && (
          <span className={active ? 'queue-hidden is-active' : 'queue-hidden'} role="status">
            {active > 0 && <Flag />} {msg.hidden(hidden.length, active)}
          </span>
        )}
        {hidden.length > 0 && (
          <Button size="small" onClick={() => onFilter(NO_FILTER)}>
            {msg.showAll}
          </Button>
        )}
      </div>
      {open && (
        <div className="queue-filters">
          <Select
            aria-label={msg.cameras}
            mode="multiple"
            maxTagCount="responsive"
            placeholder={msg.anyCamera}
            value={filter.cameras}
            options={cameras.map(({ id, name }) => ({ value: id, label: name }))}
            showSearch={{ optionFilterProp: 'label' }}
            onChange={(ids: string[]) => onFilter({ ...filter, cameras: ids })}
          />
          <Select
            aria-label={msg.lowest}
            value={filter.lowest}
            options={SEVERITIES.map((value, i) => ({
              value,
              label:
                i === 0
                  ? msg.anySeverity
                  : i === SEVERITIES.length - 1
                    ? severities[value]
                    : msg.from(severities[value])
            }))}
            onChange={(lowest: Severity) => onFilter({ ...filter, lowest })}
          />
          <Checkbox
            checked={filter.openOnly}
            onChange={(e) => onFilter({ ...filter, openOnly: e.target.checked })}
          >
            {msg.openOnly}
          </Checkbox>
        </div>
      )}
      <ul className="alarm-queue" aria-label={watchPlace.alarms} onPointerDown={onPress}>
        {groupAlarms(shown).map((group) => (
          // As it grows by a newer one, it stays the one that somebody has opened.
          <li key={group.at(-1)!.id}>
            <Group group={group} chosen={chosen} onChoose={onChoose} />
          </li>
        ))}
        {!shown.length && (
          <li className="quiet">{alarms.length ? msg.nothingLeft : watchPlace.noAlarmYet}</li>
        )}
      </ul>
    </>
  )
}

/** The newest, and the earlier ones behind a button. */
function Group({
  group: [newest, ...earlier],
  chosen,
  onChoose
}: {
  group: [AlarmView, ...AlarmView[]]
  chosen: AlarmView | null
  onChoose: (alarm: AlarmView) => void
}): ReactNode {
  const clock = useClock()
  const [opened, setOpened] = useState(false)
  const open = opened || (chosen !== null && earlier.includes(chosen))
  const line = (a: AlarmView): ReactNode => (
    <AlarmLine key={a.id} alarm={a} chosen={a === chosen} onChoose={() => onChoose(a)} />
  )
  return (
    <>
      {line(newest)}
      {earlier.length > 0 && (
        <button
          type="button"
          className="alarm-earlier"
          aria-expanded={open}
          onClick={() => setOpened(!open)}
        >
          {open ? <DownOutlined aria-hidden /> : <RightOutlined aria-hidden />}{' '}
          {msg.earlier(
            earlier.length,
            clock.minute(Math.min(...earlier.map((a) => a.lastAt))),
            clock.minute(Math.max(...earlier.map((a) => a.lastAt)))
          )}
        </button>
      )}
      {open && <div className="alarm-group">{earlier.map(line)}</div>}
    </>
  )
}

function AlarmLine({
  alarm: a,
  chosen,
  onChoose
}: {
  alarm: AlarmView
  chosen: boolean
  onChoose: () => void
}): ReactNode {
  const clock = useClock()
  return (
    <button
      type="button"
      className={`alarm-line ${a.state}${chosen ? ' chosen' : ''}`}
      aria-pressed={chosen}
      onClick={onChoose}
    >
      <span className="alarm-mark" aria-hidden="true">
        {a.state === 'waiting' ? <Flag /> : a.state === 'closed' ? <Closed /> : <Passed />}
      </span>
      <span>
        <strong>{a.name}</strong>
        <span className="quiet">
          {' '}
          {[a.cameraName, a.run !== null && shared.fromAClip].filter(Boolean).join(', ')}
        </span>
      </span>
      <span className="figures">{clock.time(a.lastAt)}</span>
      <small className="quiet">
        {[
          severityOf(a),
          a.triggers > 1 && shared.triggers(a.triggers),
          a.assignee && shared.assignedTo(a.assignee),
          a.state !== 'waiting' && a.acknowledgedBy
        ]
          .filter(Boolean)
          .join(' · ')}
      </small>
    </button>
  )
}
