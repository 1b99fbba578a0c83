import { PlusOutlined } from '@ant-design/icons'
import { Button, Switch } from 'antd'
import type { ReactNode } from 'react'
import { isNearMiss, type Ladder, type Trigger } from '../../../core/detections/index.ts'
import type { Detection, Schedule } from '../../../core/formats/plan.ts'
import type { BenchDocument, Placed } from '../document.ts'
import { bodyWords, classWords, directionWords, letterOf, scheduleWords } from '../words.ts'

export interface RailProps {
  document: BenchDocument
  placed: Placed[]
  schedules: Schedule[]
  triggers: Trigger[]
  ladders: Ladder[]
  hasClip: boolean
  selected: string | null
  onSelect: (id: string) => void
  onNewLine: () => void
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

function Sentence({ detection, schedules }: { detection: Detection; schedules: Schedule[] }): ReactNode {
  if (detection.kind !== 'line') return <strong>{detection.name}</strong>
  return (
    <>
      {capital(classWords(detection))} crosses <strong>{detection.name}</strong>, {directionWords(detection)}, {bodyWords(detection.sensitivity)}, {scheduleWords(detection, schedules)}
    </>
  )
}

/** The camera's detections, each as a short sentence. */
export function Rail({ document, placed, schedules, triggers, ladders, hasClip, selected, onSelect, onNewLine }: RailProps): ReactNode {
  return (
    <aside className="rail" aria-label="Detections">
      <h2>{placed.length === 0 ? 'Nothing drawn yet' : `${placed.length} ${placed.length === 1 ? 'detection' : 'detections'}`}</h2>
      {placed.length === 0 && <p className="quiet">Draw a line where somebody must not cross unseen. What the clip triggers shows at once.</p>}
      <ul>
        {placed.map(({ detection }, index) => {
          const count = triggers.filter((t) => t.detection === detection.id).length
          const near = detection.id === selected ? ladders.filter(isNearMiss).length : 0
          return (
            <li key={detection.id} className={`rail-item${detection.id === selected ? ' chosen' : ''}${detection.enabled ? '' : ' off'}`}>
              <button type="button" aria-pressed={detection.id === selected} onClick={() => onSelect(detection.id)}>
                <span className="letter">{detection.enabled ? letterOf(index) : '☾'}</span>
                <span className="words">
                  <Sentence detection={detection} schedules={schedules} />
                </span>
              </button>
              <span className="rail-foot">
                <span>
                  {!detection.enabled && <span className="quiet">switched off</span>}
                  {detection.enabled && hasClip && (
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
      <Button icon={<PlusOutlined />} onClick={onNewLine} disabled={!hasClip} title={hasClip ? undefined : 'Add a clip first; lines are drawn on its picture'}>
        New line <kbd>L</kbd>
      </Button>
    </aside>
  )
}
