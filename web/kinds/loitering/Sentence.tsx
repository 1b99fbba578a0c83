import { settingSeconds } from '../../../core/messages/format.ts'
import { sentence as msg } from '../../../core/messages/en/kinds/loitering.ts'
import type { LoiteringDetection } from '../../../core/kinds/loitering/schema.ts'
import { dwellCondition, togetherCondition } from '../stayChips.tsx'
import type { ZonePart } from '../zonePart.ts'
import { loiteringVerb } from '../../../core/kinds/loitering/words.ts'
import { GraceEditor } from '../chipEditors.ts'

export const loiteringZone: ZonePart<LoiteringDetection> = {
  verb: loiteringVerb,
  isInside: true,
  conditions: (props) => [
    dwellCondition(props, 1),
    {
      what: msg.graceTime,
      isSet: true,
      text: msg.outsideAtMost(settingSeconds(props.detection.graceSeconds)),
      editor: (close) => (
        <GraceEditor detection={props.detection} document={props.document} close={close} />
      )
    },
    togetherCondition(props)
  ]
}
