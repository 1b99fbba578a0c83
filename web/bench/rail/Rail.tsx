import { DownOutlined } from '@ant-design/icons'
import { Button, Dropdown, Space, Switch } from 'antd'
import type { ReactNode } from 'react'
import type { SiteInput } from '../../../core/api.ts'
import { isNearMiss, type Ladder, type Trigger } from '../../../core/detections/index.ts'
import type { Schedule } from '../../../core/formats/plan.ts'
import type { BenchDocument, Placed } from '../document.ts'
import { kindNames } from '../../kinds.ts'
import { letterOf, railWords } from '../words.ts'
import { UNDRAWN_KINDS } from './newDetection.ts'
import { ZONE_KINDS, type DrawnKind } from '../picture/shape.ts'
import { RailReadiness } from './RailReadiness.tsx'

export interface RailProps {
  document: BenchDocument
  placed: Placed[]
  schedules: Schedule[]
  triggers: Trigger[]
  ladders: Ladder[]
  hasClip: boolean
  /** There is a picture to draw on. */
  hasPicture: boolean
  selected: string | null
  onSelect: (id: string) => void
  inputs: readonly SiteInput[]
  onDraw: (kind: DrawnKind) => void
  onNew: (kind: (typeof UNDRAWN_KINDS)[number]) => void
  camera: string
}

/** The camera's detections, each as a short sentence. */
export function Rail({ document, placed, schedules, triggers, ladders, hasClip, hasPicture, selected, inputs, onSelect, onDraw, onNew, camera }: RailProps): ReactNode {
  const undrawable = hasPicture ? undefined : 'Add a clip or look at the live picture first; shapes are drawn on it'
  return (
    <aside className="rail" aria-label="Detections">
      <h2>{placed.length === 0 ? 'Nothing drawn yet' : `${placed.length} ${placed.length === 1 ? 'detection' : 'detections'}`}</h2>
      {placed.length === 0 && <p className="quiet">Draw a line where somebody must not cross unseen, or a zone where nobody must be. What the clip triggers shows at once.</p>}
      <ul aria-label="What is drawn">
        {placed.map(({ detection }, index) => {
          const count = triggers.filter((t) => t.detection === detection.id).length
          const [before, after] = railWords(detection, schedules, inputs)
          const near = detection.id === selected ? ladders.filter(isNearMiss).length : 0
          return (
            <li key={detection.id} className={`rail-item${detection.id === selected ? ' chosen' : ''}${detection.enabled ? '' : ' off'}`}>
              <button type="button" aria-pressed={detection.id === selected} onClick={() => onSelect(detection.id)}>
                <span className="letter">{detection.enabled ? letterOf(index) : '☾'}</span>
                <span className="words">
                  {before}
                  <strong>{detection.name}</strong>
                  {after}
                </span>
              </button>
              <span className="rail-foot">
                <span>
                  {!detection.enabled && <span className="quiet">switched off</span>}
                  {detection.enabled && detection.parked && <span className="quiet">parked: one minute a day, no area</span>}
                  {detection.enabled && !detection.parked && hasClip && (
                    <>
                      <span className={count ? 'count fired' : 'count'}>
                        {count > 0 && '⚑ '}
                        {count} {count === 1 ? 'trigger' : 'triggers'}
                      </span>
                      {near > 0 && (
                        <span className="quiet">
                          {near} near {near === 1 ? 'miss' : 'misses'}
                        </span>
                      )}
                    </>
                  )}
                </span>
                <Switch
                  size="small"
                  checked={detection.enabled}
                  aria-label={`${detection.name} in use`}
                  onChange={(enabled) => document.edit({ ...detection, enabled }, `${enabled ? 'Use' : 'Switch off'} ${detection.name}`)}
                />
              </span>
            </li>
          )
        })}
      </ul>
      <Space.Compact block>
        <Button className="grow" onClick={() => onDraw('line')} disabled={!hasPicture} title={undrawable}>
          Line <kbd>L</kbd>
        </Button>
        <Button onClick={() => onDraw('intrusion')} disabled={!hasPicture} title={undrawable}>
          Zone <kbd>Z</kbd>
        </Button>
        <Dropdown
          trigger={['click']}
          menu={{
            items: [
              ...ZONE_KINDS.filter((key) => key !== 'intrusion').map((key) => ({ key, label: kindNames[key], disabled: !hasPicture })),
              { type: 'divider' as const },
              ...UNDRAWN_KINDS.map((key) => ({ key, label: kindNames[key], disabled: key === 'contact' && inputs.length === 0 }))
            ],
            onClick: ({ key }) => (isOneOf(ZONE_KINDS, key) ? onDraw(key) : onNew(key as (typeof UNDRAWN_KINDS)[number]))
          }}
        >
          <Button icon={<DownOutlined />} aria-label="New detection of another kind" />
        </Dropdown>
      </Space.Compact>
      <RailReadiness camera={camera} selected={selected} document={document} />
    </aside>
  )
}

const isOneOf = <T extends string>(list: readonly T[], key: string): key is T => (list as readonly string[]).includes(key)
