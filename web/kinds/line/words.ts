import { words as msg } from '../../../core/messages/en/kinds/line.ts'
import type { LineDetection } from '../../../core/kinds/line/schema.ts'
import { bodyWords, whoWords, type KindWords } from '../words.ts'

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
  start: { name: msg.line }
}
