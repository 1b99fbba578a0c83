import type { ReactNode } from 'react'
import type {
  EntryDetection,
  ExitDetection,
  IntrusionDetection,
  LoiteringDetection
} from '../../core/formats/plan.ts'
import { Chip } from './Chip.tsx'
import { ClassesChip, GateChips, NameChip, ShareChip } from './chips.tsx'
import type { SentenceOf } from './sentence.ts'
import { atLeastWords, secondsWords } from './words.ts'
import { AtLeastEditor, DwellEditor, ZoneKindEditor } from './zoneEditors.tsx'
import type { ZoneDetection } from './zones.ts'

/** What a target does in the zone; the kind of the zone can be changed there. */
const VerbChip = ({
  detection,
  document,
  verb
}: Pick<SentenceOf<ZoneDetection>, 'detection' | 'document'> & { verb: string }): ReactNode => (
  <Chip
    what="What counts"
    editor={(close) => <ZoneKindEditor detection={detection} document={document} close={close} />}
  >
    {verb}
  </Chip>
)

/**
 * A stay in a zone.
 *
 * `least`: the shortest dwell that the kind allows, seconds; `children`: what the kind says after it
 */
export function StaySentence(
  props: SentenceOf<IntrusionDetection | LoiteringDetection> & {
    verb: string
    least: number
    children?: ReactNode
  }
): ReactNode {
  const { detection: d, document, stays, verb, least, children } = props
  return (
    <>
      <Chip
        what="How many together"
        editor={(close) => <AtLeastEditor detection={d} document={document} close={close} />}
      >
        {atLeastWords(d)}
      </Chip>{' '}
      <ClassesChip detection={d} document={document} />{' '}
      <VerbChip detection={d} document={document} verb={verb} />{' '}
      <NameChip detection={d} document={document} />, with{' '}
      <ShareChip detection={d} document={document} where="in the zone" /> in, for{' '}
      <Chip
        what="Dwell"
        editor={(close) => (
          <DwellEditor
            detection={d}
            document={document}
            stays={stays}
            least={least}
            close={close}
          />
        )}
      >
        {secondsWords(d.dwellSeconds)}
      </Chip>
      {children}, <GateChips {...props} />
    </>
  )
}

/** A passage into a zone, or out of it. */
export function PassageSentence(
  props: SentenceOf<EntryDetection | ExitDetection> & { verb: string; where: 'in' | 'out' }
): ReactNode {
  const { detection: d, document, verb, where } = props
  return (
    <>
      A <ClassesChip detection={d} document={document} />{' '}
      <VerbChip detection={d} document={document} verb={verb} />{' '}
      <NameChip detection={d} document={document} />, with{' '}
      <ShareChip
        detection={d}
        document={document}
        where={where === 'in' ? 'in the zone' : 'out of the zone'}
      />{' '}
      {where}, <GateChips {...props} />
    </>
  )
}
