import type { ReactNode } from 'react'
import type { LineDetection } from '../../../core/kinds/line/schema.ts'
import { Chip } from '../Chip.tsx'
import { ClassesChip, GateChips, NameChip, ShareChip } from '../chips.tsx'
import type { SentenceOf } from '../sentence.ts'
import { DirectionEditor } from './DirectionEditor.tsx'
import { crossingWords } from './words.ts'

export function LineSentence(props: SentenceOf<LineDetection>): ReactNode {
  const { detection: d, document } = props
  return (
    <>
      A <ClassesChip detection={d} document={document} /> crosses{' '}
      <NameChip detection={d} document={document} />{' '}
      <Chip
        what="Direction and sides"
        editor={(close) => <DirectionEditor detection={d} document={document} close={close} />}
      >
        {crossingWords(d)}
      </Chip>
      , with <ShareChip detection={d} document={document} where="over the line" /> over,{' '}
      <GateChips {...props} />
    </>
  )
}
