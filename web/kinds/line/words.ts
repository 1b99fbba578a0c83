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
  if (line.direction === 'both') return `either way between ${left} and ${right}`
  return line.direction === 'leftToRight' ? `from ${left} to ${right}` : `from ${right} to ${left}`
}

export const lineWords: KindWords<LineDetection> = {
  name: 'Line crossing',
  rail: (d) => [
    `${capital(classWords(d))} crosses `,
    `, ${directionWords(d)}, ${bodyWords(d.sensitivity)}`
  ],
  start: { name: 'Line' }
}
