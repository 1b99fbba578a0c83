import { common } from '../../../core/messages/en/common.ts'
import { words as msg } from '../../../core/messages/en/kinds/face.ts'
import type { FaceDetection } from '../../../core/kinds/face/schema.ts'
import { type KindWords } from '../words.ts'

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
  start: { name: common.face, settings: () => ({ classes: ['person'] }) }
}
