import type { ReactNode } from 'react'
import type { IntrusionDetection } from '../../../core/kinds/intrusion/schema.ts'
import type { SentenceOf } from '../sentence.ts'
import { StaySentence } from '../zoneSentences.tsx'
import { intrusionVerb } from './words.ts'

export const IntrusionSentence = (props: SentenceOf<IntrusionDetection>): ReactNode => (
  <StaySentence {...props} verb={intrusionVerb} least={0} />
)
