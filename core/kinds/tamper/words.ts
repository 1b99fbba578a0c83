import { settingSeconds } from '../../messages/format.ts'
import { common } from '../../messages/en/common.ts'
import { severities } from '../../messages/en/codes/names.ts'
import { words } from '../../messages/en/kinds/parts.ts'
import { sentence, words as msg } from '../../messages/en/kinds/tamper.ts'
import { causes as causeNames } from '../../messages/en/codes/conditions.ts'
import { TAMPER_CAUSES, type TamperDetection } from './schema.ts'
import { filledIn, type KindWords } from '../words.ts'

export const causesWords = ({ causes }: TamperDetection): string =>
  causes.length === TAMPER_CAUSES.length
    ? msg.coveredDarkWashedOut
    : words.or(causes.map((cause) => causeNames[cause]))

export const tamperWords: KindWords<TamperDetection> = {
  name: msg.tamper,
  rail: (d) => [msg.tamperAt, msg.for(causesWords(d), settingSeconds(d.delaySeconds))],
  what: (d) =>
    filledIn(sentence.cameraIs, {
      name: d.name,
      causes: causesWords(d),
      delay: settingSeconds(d.delaySeconds),
      sensitivity: common.sensitivityOf(d.sensitivity),
      severity: severities[d.severity]
    }),
  start: { name: msg.cameraHealth }
}
