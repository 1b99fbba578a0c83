import { zoneSentence as msg } from '../../core/messages/en/kinds/parts.ts'
import type { ReactNode } from 'react'
import { Chip } from './Chip.tsx'
import { ClassesChip, GateChips, NameChip, ShareChip } from './chips.tsx'
import { entryZone } from './entry/Sentence.tsx'
import { exitZone } from './exit/Sentence.tsx'
import { intrusionZone } from './intrusion/Sentence.tsx'
import { loiteringZone } from './loitering/Sentence.tsx'
import type { SentenceOf } from './sentence.ts'
import { ZoneKindEditor } from './zoneEditors.tsx'
import type { ZonePart } from './zonePart.ts'
import type { ZoneDetection } from '../../core/kinds/schemas.ts'

const parts: { [K in ZoneDetection['kind']]: ZonePart<Extract<ZoneDetection, { kind: K }>> } = {
  intrusion: intrusionZone,
  loitering: loiteringZone,
  entry: entryZone,
  exit: exitZone
}

/**
 * What happens in a zone. One component for all its kinds: the kind is changed in the midst of the sentence, whose open
 * editor must stay.
 */
export function ZoneSentence(props: SentenceOf<ZoneDetection>): ReactNode {
  const { detection: d, document } = props
  const part = parts[d.kind] as unknown as ZonePart<ZoneDetection>
  return (
    <>
      {part.before(props)} <ClassesChip detection={d} document={document} />{' '}
      <Chip
        what={msg.whatCounts}
        editor={(close) => <ZoneKindEditor detection={d} document={document} close={close} />}
      >
        {part.verb}
      </Chip>{' '}
      <NameChip detection={d} document={document} />
      {msg.with} <ShareChip detection={d} document={document} where={msg.theZone(part.where)} />{' '}
      {part.where === 'in' ? msg.in : msg.out}
      {part.after(props)}, <GateChips {...props} />
    </>
  )
}
