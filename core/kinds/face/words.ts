import { common } from '../../messages/en/common.ts'
import { frameSize } from '../../messages/format.ts'
import { sentence, words as msg } from '../../messages/en/kinds/face.ts'
import type { FaceDetection } from './schema.ts'
import { classWords, filledIn, targetConditionWords, type KindWords } from '../words.ts'

export const maskWords = ({ mask }: FaceDetection): string =>
  mask === 'any' ? msg.withOrWithoutAMask : mask === 'with' ? msg.withAMask : msg.withoutAMask

export const listWords = ({ list, faces }: FaceDetection): string => {
  if (list === 'any') return msg.anyFace
  const names = faces.length ? msg.or(faces) : msg.nobodyYet
  return list === 'listed' ? msg.of(names) : msg.ofAnyoneBut(names)
}

export const faceWords: KindWords<FaceDetection> = {
  name: common.face,
  rail: (d) => [msg.faceAt, `, ${maskWords(d)}`],
  what: (d) =>
    filledIn(sentence.aFace, {
      name: d.name,
      size: sentence.atLeast(frameSize(d.faceMin.w, d.faceMin.h))
    }),
  conditions: (d) => [
    ...(d.mask === 'any' ? [] : [maskWords(d)]),
    ...(d.list === 'any' ? [] : [listWords(d)]),
    ...(d.classes.length ? [sentence.onA(classWords(d))] : []),
    ...targetConditionWords(d)
  ],
  start: { name: common.face, settings: () => ({ classes: ['person'] }) }
}
