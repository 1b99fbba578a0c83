import type { SiteInput } from '../api.ts'
import { sentence } from '../messages/en/kinds/parts.ts'
import { settingSeconds } from '../messages/format.ts'
import type { Detection, DetectionKind, Schedule } from '../formats/plan.ts'
import { classMotionWords } from './classMotion/words.ts'
import { contactWords } from './contact/words.ts'
import { entryWords } from './entry/words.ts'
import { exitWords } from './exit/words.ts'
import { faceWords } from './face/words.ts'
import { intrusionWords } from './intrusion/words.ts'
import { lineWords } from './line/words.ts'
import { loiteringWords } from './loitering/words.ts'
import { motionWords } from './motion/words.ts'
import { signalLossWords } from './signalLoss/words.ts'
import { tamperWords } from './tamper/words.ts'
import { scheduleWords, type KindWords } from './words.ts'

/** Each kind in words. */
const words: { [K in DetectionKind]: KindWords<Extract<Detection, { kind: K }>> } = {
  line: lineWords,
  intrusion: intrusionWords,
  loitering: loiteringWords,
  entry: entryWords,
  exit: exitWords,
  motion: motionWords,
  classMotion: classMotionWords,
  tamper: tamperWords,
  signalLoss: signalLossWords,
  contact: contactWords,
  face: faceWords
}

/** The words of a kind, for a detection of whatever kind. */
export const wordsOf = (kind: DetectionKind): KindWords<Detection> =>
  words[kind] as unknown as KindWords<Detection>

export const KINDS = Object.keys(words) as DetectionKind[]

/** The kinds of detections as the trade calls them. */
export const kindNames = Object.fromEntries(
  KINDS.map((kind) => [kind, words[kind].name])
) as Record<DetectionKind, string>

/** A detection as one whole sentence: what must happen, and each condition that is not at its default. */
export function sentenceOf(
  d: Detection,
  schedules: readonly Schedule[],
  inputs: readonly SiteInput[]
): string {
  const { what, conditions } = wordsOf(d.kind)
  return `${[
    what(d, inputs),
    ...(conditions?.(d) ?? []),
    ...(d.holdOffSeconds > 0 ? [sentence.notWithin(settingSeconds(d.holdOffSeconds))] : []),
    ...(d.schedule !== undefined || d.armInput !== undefined
      ? [sentence.armed(scheduleWords(d, schedules))]
      : [])
  ].join(', ')}.`
}

/** A detection as one short sentence, for the rail: what comes before its name, and what comes after. */
export function railWords(
  d: Detection,
  schedules: readonly Schedule[],
  inputs: readonly SiteInput[]
): [before: string, after: string] {
  const [before, after] = wordsOf(d.kind).rail(d, inputs)
  return [before, d.schedule ? `${after}, ${scheduleWords(d, schedules)}` : after]
}
