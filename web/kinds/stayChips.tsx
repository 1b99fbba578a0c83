import { settingSeconds } from '../../core/messages/format.ts'
import { common } from '../../core/messages/en/common.ts'
import { stayChips as msg } from '../../core/messages/en/kinds/parts.ts'
import type { StayDetection } from '../../core/kinds/schemas.ts'
import type { Condition } from './Conditions.tsx'
import type { SentenceOf } from './sentence.ts'
import { AtLeastEditor, DwellEditor } from './chipEditors.ts'

type Props = SentenceOf<StayDetection>

/** How many must be in the zone together. */
export const togetherCondition = ({ detection, document }: Props): Condition => ({
  what: msg.numberTogether,
  isSet: detection.atLeast > 1,
  text: msg.atATime(detection.atLeast),
  editor: (close) => <AtLeastEditor detection={detection} document={document} close={close} />
})

/** @param least the shortest dwell that the kind allows, seconds */
export const dwellCondition = (
  { detection, document, stays }: Props,
  least: number
): Condition => ({
  what: common.dwell,
  isSet: detection.dwellSeconds > 0 || !detection.countFirstSeenInside,
  text: msg.for(settingSeconds(detection.dwellSeconds)),
  editor: (close) => (
    <DwellEditor
      detection={detection}
      document={document}
      stays={stays}
      least={least}
      close={close}
    />
  )
})
