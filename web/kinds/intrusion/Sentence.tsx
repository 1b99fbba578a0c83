import { common } from '../../../core/messages/en/common.ts'
import type { IntrusionDetection } from '../../../core/kinds/intrusion/schema.ts'
import { DwellChip, TogetherChip } from '../stayChips.tsx'
import type { ZonePart } from '../zonePart.ts'
import { intrusionVerb } from './words.ts'

export const intrusionZone: ZonePart<IntrusionDetection> = {
  before: (props) => <TogetherChip {...props} />,
  verb: intrusionVerb,
  where: 'in',
  after: (props) => (
    <>
      {common.for} <DwellChip {...props} least={0} />
    </>
  )
}
