import { EllipsisOutlined, EyeInvisibleOutlined, LockOutlined } from '@ant-design/icons'
import { Button, Checkbox, Dropdown, Switch } from 'antd'
import type { ReactNode } from 'react'
import type { Detection } from '../../../core/formats/plan.ts'
import { letterOf } from '../words.ts'

export interface RailItemProps {
  detection: Detection
  index: number
  last: boolean
  /** The sentence, before and after the name. */
  words: [before: string, after: string]
  chosen: boolean
  /** Null: there is no clip to try it on. */
  triggers: number | null
  near: number
  hidden: boolean
  locked: boolean
  /** While several are marked for a change at once: whether this one is; null otherwise. */
  marked: boolean | null
  onSelect: () => void
  onMark: (marked: boolean) => void
  onUse: (enabled: boolean) => void
  onMove: (by: -1 | 1) => void
  onDuplicate: () => void
  onHide: () => void
  onLock: () => void
  onDelete: () => void
}

/** One detection of the rail: its sentence, what it triggers, and what can be done with it. */
export function RailItem(p: RailItemProps): ReactNode {
  const { detection, index, words, chosen, triggers, near, marked } = p
  const [before, after] = words
  return (
    <>
      <button type="button" aria-pressed={chosen} onClick={p.onSelect}>
        <span className="letter">{detection.enabled ? letterOf(index) : '☾'}</span>
        <span className="words">
          {before}
          <strong>{detection.name}</strong>
          {after}
        </span>
      </button>
      <span className="rail-foot">
        <span>
          {marked !== null && <Checkbox checked={marked} aria-label={`Mark ${detection.name}`} onChange={(e) => p.onMark(e.target.checked)} />}
          {!detection.enabled && <span className="quiet">switched off</span>}
          {detection.enabled && detection.parked && <span className="quiet">parked: one minute a day, no area</span>}
          {detection.enabled && !detection.parked && triggers !== null && (
            <>
              <span className={triggers ? 'count fired' : 'count'}>
                {triggers > 0 && '⚑ '}
                {triggers} {triggers === 1 ? 'trigger' : 'triggers'}
              </span>
              {near > 0 && (
                <span className="quiet">
                  {near} near {near === 1 ? 'miss' : 'misses'}
                </span>
              )}
            </>
          )}
          {p.hidden && <EyeInvisibleOutlined className="quiet" title="Hidden on the picture" />}
          {p.locked && <LockOutlined className="quiet" title="Locked" />}
        </span>
        <span className="rail-controls">
          <Dropdown
            trigger={['click']}
            menu={{
              items: [
                { key: 'up', label: 'Move up', disabled: index === 0, onClick: () => p.onMove(-1) },
                { key: 'down', label: 'Move down', disabled: p.last, onClick: () => p.onMove(1) },
                { type: 'divider' },
                { key: 'duplicate', label: 'Duplicate', onClick: p.onDuplicate },
                { key: 'hide', label: p.hidden ? 'Show on the picture' : 'Hide on the picture', onClick: p.onHide },
                { key: 'lock', label: p.locked ? 'Unlock the shape' : 'Lock the shape', onClick: p.onLock },
                { type: 'divider' },
                { key: 'delete', label: 'Delete', danger: true, disabled: p.locked, onClick: p.onDelete }
              ]
            }}
          >
            <Button size="small" type="text" icon={<EllipsisOutlined />} aria-label={`More for ${detection.name}`} />
          </Dropdown>
          <Switch size="small" checked={detection.enabled} aria-label={`${detection.name} in use`} onChange={p.onUse} />
        </span>
      </span>
    </>
  )
}
