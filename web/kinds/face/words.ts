import type { FaceDetection } from '../../../core/kinds/face/schema.ts'
import { listed, type KindWords } from '../words.ts'

export const maskWords = ({ mask }: FaceDetection): string =>
  mask === 'any' ? 'with or without a mask' : `${mask} a mask`

export const listWords = ({ list, faces }: FaceDetection): string => {
  if (list === 'any') return 'whoever it is'
  const names = faces.length ? listed(faces) : 'nobody yet'
  return list === 'listed' ? `of ${names}` : `of anybody but ${names}`
}

export const faceWords: KindWords<FaceDetection> = {
  name: 'Face',
  rail: (d) => ['Face at ', `, ${maskWords(d)}`],
  start: { name: 'Face', settings: () => ({ classes: ['person'] }) }
}
