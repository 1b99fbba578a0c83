import { zoneSentence as msg } from '../../core/messages/en/kinds/parts.ts'
import type { ReactNode } from 'react'
import { Rich } from '../words/Rich.tsx'
import { Chip } from './Chip.tsx'
import type { Condition } from './Conditions.tsx'
import { ClassesChip, NameChip, ShareChip, targetConditions } from './chips.tsx'
import { entryZone } from './entry/Sentence.ts'
import { exitZone } from './exit/Sentence.ts'
import { intrusionZone } from './intrusion/Sentence.ts'
import { loiteringZone } from './loitering/Sentence.tsx'
import type { KindSentence, SentenceOf } from './sentence.ts'
import type { ZonePart } from './zonePart.ts'
import type { ZoneDetection } from '../../core/kinds/schemas.ts'
import { ZoneKindEditor } from './chipEditors.ts'

const parts: { [K in ZoneDetection['kind']]: ZonePart<Extract<ZoneDetection, { kind: K }>> } = {
  intrusion: intrusionZone,
  loitering: loiteringZone,
  entry: entryZone,
  exit: exitZone
}
const partOf = (kind: ZoneDetection['kind']): ZonePart<ZoneDetection> =>
  parts[kind] as unknown as ZonePart<ZoneDetection>

/**
 * What happens in a zone. One component for all its kinds: the kind is changed in the midst of the sentence, whose open
 * editor must stay.
 */
function ZoneWhat({ detection: d, document }: SentenceOf<ZoneDetection>): ReactNode {
  const { verb, isInside } = partOf(d.kind)
  return (
    <Rich
      text={isInside ? msg.whoDoesZoneOverlap : msg.whoDoesZoneOverlapOut}
      parts={{
        who: <ClassesChip detection={d} document={document} />,
        does: (
          <Chip
            what={msg.whatCounts}
            editor={(close) => <ZoneKindEditor detection={d} document={document} close={close} />}
          >
            {verb}
          </Chip>
        ),
        zone: <NameChip detection={d} document={document} />,
        overlap: (
          <ShareChip
            detection={d}
            document={document}
            where={isInside ? msg.inTheZone : msg.outOfTheZone}
          />
        )
      }}
    />
  )
}

export const zoneSentence: KindSentence<ZoneDetection> = {
  What: ZoneWhat,
  conditions: (props): Condition[] => [
    ...partOf(props.detection.kind).conditions(props),
    ...targetConditions(props)
  ]
}
