import { DeleteOutlined } from '@ant-design/icons'
import { Button, Tooltip } from 'antd'
import type { ReactNode } from 'react'
import type { FrameTrace, Ladder } from '../../../core/detections/index.ts'
import { RULE_TYPES } from '../../../core/formats/onvif/abilities.ts'
import { isFrameKind, type Detection } from '../../../core/formats/plan.ts'
import { kindNames } from '../../kinds.ts'
import type { BenchDocument } from '../document.ts'
import { LadderView } from './LadderView.tsx'
import { Sentence, type SentenceProps } from './Sentence.tsx'

export interface InspectorProps extends Omit<SentenceProps, 'detection'> {
  detection: SentenceProps['detection'] | null
  letter: string
  /** Of the selected target, or of the frame for kinds that look at whole frames. */
  ladder: Ladder | null
  frames: FrameTrace | null
  targetClass: string
  onRemove: () => void
  /** Controls of the selected kind that belong to the clip, not to the detection. */
  tools: ReactNode
}

/** What is selected: the sentence with every part editable, then the gate ladder of the selected target or moment. */
export function Inspector({ detection, letter, ladder, frames, targetClass, onRemove, tools, ...sentence }: InspectorProps): ReactNode {
  if (!detection)
    return (
      <aside className="inspector" aria-label="Inspector">
        <h2>Nothing selected</h2>
        <p className="quiet">Choose a detection on the left or on the picture to set it. Choose a trigger or a target to see which gates it passed.</p>
      </aside>
    )
  return (
    <aside className="inspector" aria-label="Inspector">
      <header>
        <h2>
          {letter} · {kindNames[detection.kind]}
        </h2>
        <Tooltip title={<>Delete <kbd>Del</kbd></>}>
          <Button type="text" size="small" icon={<DeleteOutlined />} aria-label={`Delete ${detection.name}`} onClick={onRemove} />
        </Tooltip>
      </header>
      <Sentence {...sentence} detection={detection} />
      {tools}
      {!detection.enabled && <p className="off-note">☾ Switched off: it triggers nothing until it is in use.</p>}
      {RULE_TYPES[detection.kind] !== undefined && <Parking detection={detection} document={sentence.document} />}
      {frames && isFrameKind(detection) ? (
        <LadderView ladder={frames.ladder} who={detection.name} />
      ) : ladder ? (
        <LadderView ladder={ladder} who={`${targetClass} ${ladder.target}`} />
      ) : (
        <p className="quiet ladder-hint">{detection.enabled ? 'Choose a trigger on the timeline, or a target, to see why it fired or why not.' : ''}</p>
      )}
    </aside>
  )
}

/** Keeps a detection's place on a device that would switch the kind on again by itself; it watches nothing. */
function Parking({ detection, document }: { detection: Detection; document: BenchDocument }): ReactNode {
  if (!detection.enabled) return null
  const park = (parked: boolean): void => document.edit({ ...detection, parked: parked || undefined }, `${parked ? 'Park' : 'Use'} ${detection.name}`)
  if (!detection.parked)
    return (
      <Tooltip title="For devices that switch this kind on again by themselves: it keeps its place there with one minute a day and no area, and watches nothing.">
        <Button type="text" size="small" className="park" onClick={() => park(true)}>
          Park it
        </Button>
      </Tooltip>
    )
  return (
    <p className="off-note">
      Parked: on its device it is armed for one minute a day, with no area; it watches nothing.{' '}
      <Button size="small" onClick={() => park(false)}>
        Use it again
      </Button>
    </p>
  )
}
