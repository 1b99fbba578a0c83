import { words as msg } from '../../../core/messages/en/kinds/line.ts'
import type { LineDetection } from '../../../core/kinds/line/schema.ts'
import { bodyWords, capital, classWords, type KindWords } from '../words.ts'

export const sideNames = ({ sides }: LineDetection): { left: string; right: string } => ({
  left: sides?.left ?? 'left',
  right: sides?.right ?? 'right'
})

export const directionWords = (line: LineDetection): string => {
  const { left, right } = sideNames(line)
  if (line.direction === 'both') return `${left} ↔ ${right}`
  return line.direction === 'leftToRight' ? `${left} → ${right}` : `${right} → ${left}`
}

/** The direction within the inspector's sentence. */
export const crossingWords = (line: LineDetection): string => {
  const { left, right } = sideNames(line)
  if (line.direction === 'both') return msg.eitherWayBetweenAnd(left, right)
  return line.direction === 'leftToRight' ? msg.fromTo(left, right) : msg.fromTo2(right, left)
}

export const lineWords: KindWords<LineDetection> = {
  name: msg.lineCrossing,
  rail: (d) => [
    msg.crosses(capital(classWords(d))),
    `, ${directionWords(d)}, ${bodyWords(d.sensitivity)}`
  ],
  start: { name: msg.line }
}
