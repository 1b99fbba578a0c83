import { settingSeconds } from '../../core/messages/format.ts'
import { common } from '../../core/messages/en/common.ts'
import { chips as msg } from '../../core/messages/en/kinds/parts.ts'
import type { ReactNode } from 'react'
import type { Detection, TargetGated } from '../../core/formats/plan.ts'
import { Chip } from './Chip.tsx'
import type { Condition } from './Conditions.tsx'
import {
  ClassesEditor,
  ConfirmEditor,
  NameEditor,
  SensitivityEditor,
  SizeEditor
} from './chipEditors.ts'
import type { EditorProps } from './editors.tsx'
import type { SentenceOf } from './sentence.ts'
import { bodyWords, sizeWords, whoWords } from '../../core/kinds/words.ts'

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

/** Who counts, at the beginning of the sentence: `A person or vehicle`. */
export const ClassesChip = ({ detection, document }: Of<TargetGated>): ReactNode => (
  <Chip
    what={common.classes}
    editor={(close) => <ClassesEditor detection={detection} document={document} close={close} />}
  >
    {whoWords(detection)}
  </Chip>
)

/** How much of the body must be somewhere, such as `in the zone`. */
export const ShareChip = ({
  detection,
  document,
  where
}: Of<Extract<TargetGated, { sensitivity: number }>> & { where: string }): ReactNode => (
  <Chip
    what={common.overlap}
    editor={(close) => (
      <SensitivityEditor detection={detection} document={document} where={where} close={close} />
    )}
  >
    {bodyWords(detection.sensitivity)}
  </Chip>
)

/** The conditions that look at the target: confirmation time and size. */
export const targetConditions = ({
  detection,
  document,
  sizes,
  measured
}: Pick<SentenceOf<TargetGated>, 'detection' | 'document' | 'sizes' | 'measured'>): Condition[] => [
  {
    what: common.confirmTime,
    isSet: detection.confirmSeconds > 0,
    text: msg.visibleFor(settingSeconds(detection.confirmSeconds)),
    editor: (close) => <ConfirmEditor detection={detection} document={document} close={close} />
  },
  {
    what: common.sizeLimits,
    isSet: detection.size !== undefined,
    text: sizeWords(detection),
    editor: (close) => (
      <SizeEditor
        detection={detection}
        document={document}
        sizes={sizes}
        measured={measured}
        close={close}
      />
    )
  }
]
