import { common } from '../../../core/messages/en/common.ts'
import { railItem as msg } from '../../../core/messages/en/bench/rail.ts'
import './rail.css'
import '../bench.css'
import {
  EllipsisOutlined,
  EyeInvisibleOutlined,
  LockOutlined,
  MoonOutlined
} from '@ant-design/icons'
import { Checkbox, Switch } from 'antd'
import { memo, type ReactNode } from 'react'
import type { SiteInput } from '../../../core/api.ts'
import type { Detection, Schedule } from '../../../core/formats/plan.ts'
import { letterOf } from '../../../core/kinds/words.ts'
import { railWords } from '../../../core/kinds/names.ts'
import { MoreMenu } from '../../shell/MoreMenu.tsx'
import { Flag } from '../../words/signs.tsx'

/** What can be done with a detection of the rail. */
export interface RailActions {
  select: (id: string) => void
  mark: (id: string, marked: boolean) => void
  use: (detection: Detection, enabled: boolean) => void
  move: (id: string, by: -1 | 1) => void
  duplicate: (detection: Detection) => void
  hide: (id: string) => void
  lock: (id: string) => void
  remove: (id: string) => void
}

export interface RailItemProps {
  detection: Detection
  index: number
  last: boolean
  schedules: Schedule[]
  inputs: readonly SiteInput[]
  chosen: boolean
  /** Null: there is no clip to try it on. */
  triggers: number | null
  near: number
  /** What was found about it, and whether any of it blocks. */
  issues: number
  blocked: boolean
  hidden: boolean
  locked: boolean
  /** While several are marked for a change at once: whether this one is; null otherwise. */
  marked: boolean | null
  /** The same object from one rendering to the next. */
  act: RailActions
}

/** One detection of the rail: its sentence, what it triggers, and what can be done with it. */
export const RailItem = memo(function RailItem({
  detection,
  index,
  last,
  schedules,
  inputs,
  chosen,
  triggers,
  near,
  issues,
  blocked,
  hidden,
  locked,
  marked,
  act
}: RailItemProps): ReactNode {
  const { id, name, enabled, parked } = detection
  const [before, after] = railWords(detection, schedules, inputs)
  return (
    <>
      <button type="button" aria-pressed={chosen} onClick={() => act.select(id)}>
        <span className="letter">{enabled ? letterOf(index) : <MoonOutlined aria-hidden />}</span>
        <span className="words">
          {before}
          <strong>{name}</strong>
          {after}
        </span>
      </button>
      <span className="rail-foot">
        <span>
          {marked !== null && (
            <Checkbox
              checked={marked}
              aria-label={msg.mark(name)}
              onChange={(e) => act.mark(id, e.target.checked)}
            />
          )}
          {!enabled && <span className="quiet">{msg.switchedOff}</span>}
          {enabled && parked && <span className="quiet">{msg.parkedKeepsItsPlace}</span>}
          {enabled && !parked && triggers !== null && (
            <>
              <span className={triggers ? 'count fired' : 'count'}>
                {triggers > 0 && <Flag />}
                {msg.triggers(triggers)}
              </span>
              {near > 0 && <span className="quiet">{msg.near(near)}</span>}
            </>
          )}
          {issues > 0 && (
            <span className={blocked ? 'issue-badge blocking' : 'issue-badge'}>
              {msg.issues(issues)}
            </span>
          )}
          {hidden && (
            <EyeInvisibleOutlined className="quiet" title={msg.hidden} aria-label={msg.hidden} />
          )}
          {locked && <LockOutlined className="quiet" title={msg.locked} aria-label={msg.locked} />}
        </span>
        <span className="rail-controls">
          <MoreMenu
            label={msg.moreFor(name)}
            icon={<EllipsisOutlined aria-hidden />}
            type="text"
            items={[
              {
                key: 'up',
                label: msg.moveUp,
                disabled: index === 0,
                onClick: () => act.move(id, -1)
              },
              { key: 'down', label: msg.moveDown, disabled: last, onClick: () => act.move(id, 1) },
              { type: 'divider' },
              {
                key: 'duplicate',
                label: common.duplicate,
                onClick: () => act.duplicate(detection)
              },
              {
                key: 'hide',
                label: hidden ? msg.showOnThePicture : msg.hideOnThePicture,
                onClick: () => act.hide(id)
              },
              {
                key: 'lock',
                label: locked ? msg.unlockTheShape : msg.lockTheShape,
                onClick: () => act.lock(id)
              },
              { type: 'divider' },
              {
                key: 'delete',
                label: common.delete,
                danger: true,
                disabled: locked,
                onClick: () => act.remove(id)
              }
            ]}
          />
          <Switch
            size="small"
            checked={enabled}
            aria-label={msg.inUse(name)}
            onChange={(on) => act.use(detection, on)}
          />
        </span>
      </span>
    </>
  )
})
