import type { ExitDetection } from '../../../core/kinds/exit/schema.ts'
import type { ZonePart } from '../zonePart.ts'
import { exitVerb } from '../../../core/kinds/exit/words.ts'

export const exitZone: ZonePart<ExitDetection> = {
  verb: exitVerb,
  isInside: false,
  conditions: () => []
}
