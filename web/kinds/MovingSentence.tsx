import { settingSeconds } from '../../core/messages/format.ts'
import { common } from '../../core/messages/en/common.ts'
import { movingSentence as msg } from '../../core/messages/en/kinds/parts.ts'
import type { ReactNode } from 'react'
import { Rich } from '../words/Rich.tsx'
import { Chip } from './Chip.tsx'
import { NameChip } from './chips.tsx'
import { MotionDelaysEditor, MotionSensitivityEditor, ThresholdEditor } from './chipEditors.ts'
import type { Moving } from './motionEditors.tsx'
import type { SentenceOf } from './sentence.ts'
import { cellWords, percentWords } from '../../core/kinds/words.ts'

/** What both kinds of motion say; `what` is it that moves. */
export const MovingSentence = ({
  detection: d,
  document,
  what
}: SentenceOf<Moving> & { what: ReactNode }): ReactNode => (
  <Rich
    text={msg.moves(cellWords(d))}
    parts={{
      what,
      name: <NameChip detection={d} document={document} />,
      share: (
        <Chip
          what={msg.shareOfTheCells}
          editor={(close) => <ThresholdEditor detection={d} document={document} close={close} />}
        >
          {percentWords(d.threshold)}
        </Chip>
      ),
      sensitivity: (
        <Chip
          what={common.sensitivity}
          editor={(close) => (
            <MotionSensitivityEditor detection={d} document={document} close={close} />
          )}
        >
          {common.sensitivityOf(d.sensitivity)}
        </Chip>
      ),
      delay: (
        <Chip
          what={msg.delays}
          editor={(close) => <MotionDelaysEditor detection={d} document={document} close={close} />}
        >
          {settingSeconds(d.onDelaySeconds)}
        </Chip>
      )
    }}
  />
)
