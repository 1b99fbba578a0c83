import { sentence as msg } from '../../../core/messages/en/kinds/line.ts'
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
      {msg.a} <ClassesChip detection={d} document={document} /> {msg.crosses}{' '}
      <NameChip detection={d} document={document} />{' '}
      <Chip
        what={msg.directionAndSides}
        editor={(close) => <DirectionEditor detection={d} document={document} close={close} />}
      >
        {crossingWords(d)}
      </Chip>
      {msg.with} <ShareChip detection={d} document={document} where={msg.overTheLine} /> {msg.over}{' '}
      <GateChips {...props} />
    </>
  )
}
