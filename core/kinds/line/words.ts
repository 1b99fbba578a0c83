import { sentence, words as msg } from '../../messages/en/kinds/line.ts'
import type { LineDetection } from './schema.ts'
import { bodyWords, filledIn, targetConditionWords, whoWords, type KindWords } from '../words.ts'

export const sideNames = ({ sides }: LineDetection): { left: string; right: string } => ({
  left: sides?.left ?? msg.left,
  right: sides?.right ?? msg.right
})

export const directionWords = (line: LineDetection): string => {
  const { left, right } = sideNames(line)
  if (line.direction === 'both') return msg.either(left, right)
  return line.direction === 'leftToRight' ? msg.path(left, right) : msg.path(right, left)
}

export const lineWords: KindWords<LineDetection> = {
  name: msg.lineCrossing,
  rail: (d) => [msg.crosses(whoWords(d)), `, ${directionWords(d)}, ${bodyWords(d.sensitivity)}`],
  what: (d) =>
    filledIn(sentence.crosses, {
      who: whoWords(d),
      line: d.name,
      path: directionWords(d),
      overlap: bodyWords(d.sensitivity)
    }),
  conditions: targetConditionWords,
  start: { name: msg.line }
}
