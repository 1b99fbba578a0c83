import type { ReactNode } from 'react'
import type { ClassMotionDetection } from '../../../core/kinds/classMotion/schema.ts'
import { MovingSentence } from '../MovingSentence.tsx'
import { ClassesChip, GateChips } from '../chips.tsx'
import type { SentenceOf } from '../sentence.ts'

export const ClassMotionSentence = (props: SentenceOf<ClassMotionDetection>): ReactNode => (
  <>
    <MovingSentence
      {...props}
      what={
        <>
          A <ClassesChip detection={props.detection} document={props.document} /> in motion
        </>
      }
    />
    , <GateChips {...props} />
  </>
)
