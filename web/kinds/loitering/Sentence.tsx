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
      , for <DwellChip {...props} least={1} />, away for{' '}
      <Chip
        what="Grace"
        editor={(close) => (
          <GraceEditor detection={props.detection} document={props.document} close={close} />
        )}
      >{`at most ${secondsWords(props.detection.graceSeconds)}`}</Chip>
    </>
  )
}
