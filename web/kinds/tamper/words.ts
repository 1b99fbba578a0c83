import { settingSeconds } from '../../../core/messages/format.ts'
import { words } from '../../../core/messages/en/kinds/parts.ts'
import { words as msg } from '../../../core/messages/en/kinds/tamper.ts'
import { causes as causeNames } from '../../../core/messages/en/codes/conditions.ts'
import { TAMPER_CAUSES, type TamperDetection } from '../../../core/kinds/tamper/schema.ts'
import { type KindWords } from '../words.ts'

export const causesWords = ({ causes }: TamperDetection): string =>
  causes.length === TAMPER_CAUSES.length
    ? msg.coveredDarkWashedOut
    : words.or(causes.map((cause) => causeNames[cause]))

export const tamperWords: KindWords<TamperDetection> = {
  name: msg.tamper,
  rail: (d) => [msg.tamperAt, msg.for(causesWords(d), settingSeconds(d.delaySeconds))],
  start: { name: msg.cameraHealth }
}
