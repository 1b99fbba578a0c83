import { common } from '../../../core/messages/en/common.ts'
import { sentence as msg } from '../../../core/messages/en/kinds/loitering.ts'
import type { LoiteringDetection } from '../../../core/kinds/loitering/schema.ts'
import { Chip } from '../Chip.tsx'
import { DwellChip, TogetherChip } from '../stayChips.tsx'
import { secondsWords } from '../words.ts'
import type { ZonePart } from '../zonePart.ts'
import { GraceEditor } from './GraceEditor.tsx'
import { loiteringVerb } from './words.ts'

export const loiteringZone: ZonePart<LoiteringDetection> = {
  before: (props) => <TogetherChip {...props} />,
  verb: loiteringVerb,
  where: 'in',
  after: (props) => (
    <>
      {common.for} <DwellChip {...props} least={1} />
      {msg.awayFor}{' '}
      <Chip
        what={msg.grace}
        editor={(close) => (
          <GraceEditor detection={props.detection} document={props.document} close={close} />
        )}
      >
        {msg.atMost(secondsWords(props.detection.graceSeconds))}
      </Chip>
    </>
  )
}
