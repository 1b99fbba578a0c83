import type { IntrusionDetection } from '../../../core/kinds/intrusion/schema.ts'
import { dwellCondition, togetherCondition } from '../stayChips.tsx'
import type { ZonePart } from '../zonePart.ts'
import { intrusionVerb } from '../../../core/kinds/intrusion/words.ts'

export const intrusionZone: ZonePart<IntrusionDetection> = {
  verb: intrusionVerb,
  isInside: true,
  conditions: (props) => [dwellCondition(props, 0), togetherCondition(props)]
}
