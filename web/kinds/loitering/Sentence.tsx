import type { ReactNode } from 'react'
import type { LoiteringDetection } from '../../../core/kinds/loitering/schema.ts'
import { Chip } from '../Chip.tsx'
import type { SentenceOf } from '../sentence.ts'
import { secondsWords } from '../words.ts'
import { StaySentence } from '../zoneSentences.tsx'
import { GraceEditor } from './GraceEditor.tsx'
import { loiteringVerb } from './words.ts'

export const LoiteringSentence = (props: SentenceOf<LoiteringDetection>): ReactNode => (
  <StaySentence {...props} verb={loiteringVerb} least={1}>
    , away for{' '}
    <Chip
      what="Grace"
      editor={(close) => (
        <GraceEditor detection={props.detection} document={props.document} close={close} />
      )}
    >{`at most ${secondsWords(props.detection.graceSeconds)}`}</Chip>
  </StaySentence>
)
