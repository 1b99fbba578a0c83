import { sentence as msg } from '../../../core/messages/en/kinds/line.ts'
import type { ReactNode } from 'react'
import type { LineDetection } from '../../../core/kinds/line/schema.ts'
import { Rich } from '../../words/Rich.tsx'
import { Chip } from '../Chip.tsx'
import { ClassesChip, NameChip, ShareChip, targetConditions } from '../chips.tsx'
import type { KindSentence, SentenceOf } from '../sentence.ts'
import { directionWords } from '../../../core/kinds/line/words.ts'
import { DirectionEditor } from '../chipEditors.ts'

function LineWhat({ detection: d, document }: SentenceOf<LineDetection>): ReactNode {
  return (
    <Rich
      text={msg.crosses}
      parts={{
        who: <ClassesChip detection={d} document={document} />,
        line: <NameChip detection={d} document={document} />,
        path: (
          <Chip
            what={msg.directionAndSides}
            editor={(close) => <DirectionEditor detection={d} document={document} close={close} />}
          >
            {directionWords(d)}
          </Chip>
        ),
        overlap: <ShareChip detection={d} document={document} where={msg.overTheLine} />
      }}
    />
  )
}

export const lineSentence: KindSentence<LineDetection> = {
  What: LineWhat,
  conditions: targetConditions
}
