import { common } from '../../core/messages/en/common.ts'
import { chips as msg } from '../../core/messages/en/kinds/parts.ts'
import type { ReactNode } from 'react'
import type { Detection, TargetGated } from '../../core/formats/plan.ts'
import { Chip } from './Chip.tsx'
import {
  ClassesEditor,
  ConfirmEditor,
  NameEditor,
  SensitivityEditor,
  type EditorProps
} from './editors.tsx'
import type { SentenceOf } from './sentence.ts'
import { SizeEditor } from './SizeEditor.tsx'
import { bodyWords, classWords, secondsWords, sizeWords } from './words.ts'

/** Parts of the sentence that several kinds share. */

type Of<D extends Detection> = Pick<EditorProps<D>, 'detection' | 'document'>

export const NameChip = ({ detection, document }: Of<Detection>): ReactNode => (
  <Chip
    what={common.name}
    editor={(close) => <NameEditor detection={detection} document={document} close={close} />}
  >
    {detection.name}
  </Chip>
)

export const ClassesChip = ({ detection, document }: Of<TargetGated>): ReactNode => (
  <Chip
    what={msg.classes}
    editor={(close) => <ClassesEditor detection={detection} document={document} close={close} />}
  >
    {classWords(detection)}
  </Chip>
)

/** How much of the body must be somewhere, such as `in the zone`. */
export const ShareChip = ({
  detection,
  document,
  where
}: Of<Extract<TargetGated, { sensitivity: number }>> & { where: string }): ReactNode => (
  <Chip
    what={common.bodyShare}
    editor={(close) => (
      <SensitivityEditor detection={detection} document={document} where={where} close={close} />
    )}
  >
    {bodyWords(detection.sensitivity)}
  </Chip>
)

/** The gates that look at the target: confirm time and size. */
export const GateChips = ({
  detection,
  document,
  sizes,
  measured
}: Pick<SentenceOf<TargetGated>, 'detection' | 'document' | 'sizes' | 'measured'>): ReactNode => (
  <>
    {msg.seenFor}{' '}
    <Chip
      what={common.confirmTime}
      editor={(close) => <ConfirmEditor detection={detection} document={document} close={close} />}
    >
      {secondsWords(detection.confirmSeconds)}
    </Chip>
    ,{' '}
    <Chip
      what={msg.sizeFrames}
      editor={(close) => (
        <SizeEditor
          detection={detection}
          document={document}
          sizes={sizes}
          measured={measured}
          close={close}
        />
      )}
    >
      {sizeWords(detection)}
    </Chip>
  </>
)
