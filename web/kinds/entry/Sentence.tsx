import type { ReactNode } from 'react'
import type { EntryDetection } from '../../../core/kinds/entry/schema.ts'
import type { SentenceOf } from '../sentence.ts'
import { PassageSentence } from '../zoneSentences.tsx'
import { entryVerb } from './words.ts'

export const EntrySentence = (props: SentenceOf<EntryDetection>): ReactNode => (
  <PassageSentence {...props} verb={entryVerb} where="in" />
)
