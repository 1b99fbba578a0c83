import type { ExitDetection } from '../../../core/kinds/exit/schema.ts'
import type { ZonePart } from '../zonePart.ts'
import { exitVerb } from './words.ts'

export const exitZone: ZonePart<ExitDetection> = {
  verb: exitVerb,
  isInside: false,
  conditions: () => []
}
