import type { ReactNode } from 'react'
import type { ExitDetection } from '../../../core/kinds/exit/schema.ts'
import type { SentenceOf } from '../sentence.ts'
import { PassageSentence } from '../zoneSentences.tsx'
import { exitVerb } from './words.ts'

export const ExitSentence = (props: SentenceOf<ExitDetection>): ReactNode => (
  <PassageSentence {...props} verb={exitVerb} where="out" />
)
