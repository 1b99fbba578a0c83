import type { EntryDetection } from '../../../core/kinds/entry/schema.ts'
import type { ZonePart } from '../zonePart.ts'
import { entryVerb } from '../../../core/kinds/entry/words.ts'

export const entryZone: ZonePart<EntryDetection> = {
  verb: entryVerb,
  isInside: true,
  conditions: () => []
}
