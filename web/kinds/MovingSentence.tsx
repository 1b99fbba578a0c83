import { common } from '../../core/messages/en/common.ts'
import { movingSentence as msg } from '../../core/messages/en/kinds/parts.ts'
import type { ReactNode } from 'react'
import { Chip } from './Chip.tsx'
import { NameChip } from './chips.tsx'
import {
  MotionDelaysEditor,
  MotionSensitivityEditor,
  ThresholdEditor,
  type Moving
} from './motionEditors.tsx'
import type { SentenceOf } from './sentence.ts'
import { cellWords, percentWords, secondsWords } from './words.ts'

/** What both kinds of motion say; `what` is it that moves. */
export function MovingSentence({
  detection: d,
  document,
  what
}: SentenceOf<Moving> & { what: ReactNode }): ReactNode {
  return (
    <>
      {what} {msg.in} <NameChip detection={d} document={document} />:{' '}
      <Chip
        what={msg.shareOfTheCells}
        editor={(close) => <ThresholdEditor detection={d} document={document} close={close} />}
      >
        {percentWords(d.threshold)}
      </Chip>{' '}
      {msg.ofMovesAt(cellWords(d))}{' '}
      <Chip
        what={common.sensitivity}
        editor={(close) => (
          <MotionSensitivityEditor detection={d} document={document} close={close} />
        )}
      >
        {msg.sensitivity2(d.sensitivity)}
      </Chip>
      {common.for}{' '}
      <Chip
        what={msg.delays}
        editor={(close) => <MotionDelaysEditor detection={d} document={document} close={close} />}
      >
        {secondsWords(d.onDelaySeconds)}
      </Chip>
    </>
  )
}
