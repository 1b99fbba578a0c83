import { sentence as msg } from '../../../core/messages/en/kinds/classMotion.ts'
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
          {msg.a} <ClassesChip detection={props.detection} document={props.document} />{' '}
          {msg.inMotion}
        </>
      }
    />
    , <GateChips {...props} />
  </>
)
