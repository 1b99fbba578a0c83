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
      {what} in <NameChip detection={d} document={document} />:{' '}
      <Chip
        what="Share of the cells"
        editor={(close) => <ThresholdEditor detection={d} document={document} close={close} />}
      >
        {percentWords(d.threshold)}
      </Chip>{' '}
      of {cellWords(d)} moves, at{' '}
      <Chip
        what="Sensitivity"
        editor={(close) => (
          <MotionSensitivityEditor detection={d} document={document} close={close} />
        )}
      >{`sensitivity ${d.sensitivity}`}</Chip>
      , for{' '}
      <Chip
        what="Delays"
        editor={(close) => <MotionDelaysEditor detection={d} document={document} close={close} />}
      >
        {secondsWords(d.onDelaySeconds)}
      </Chip>
    </>
  )
}
