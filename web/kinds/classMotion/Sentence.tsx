import type { ClassMotionDetection } from '../../../core/kinds/classMotion/schema.ts'
import { sentence as msg } from '../../../core/messages/en/kinds/classMotion.ts'
import { Rich } from '../../words/Rich.tsx'
import { MovingSentence } from '../MovingSentence.tsx'
import { ClassesChip, targetConditions } from '../chips.tsx'
import type { KindSentence } from '../sentence.ts'

export const classMotionSentence: KindSentence<ClassMotionDetection> = {
  What: (props) => (
    <MovingSentence
      {...props}
      what={
        <Rich
          text={msg.whoInMotion}
          parts={{ who: <ClassesChip detection={props.detection} document={props.document} /> }}
        />
      }
    />
  ),
  conditions: targetConditions
}
