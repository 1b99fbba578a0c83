import { messages } from '../../messages.ts'

export const words = messages({
  left: 'left',
  right: 'right',
  either: (left: string, right: string) => `${left} ↔ ${right}`,
  path: (from: string, to: string) => `${from} → ${to}`,
  lineCrossing: 'Line crossing',
  crosses: (who: string) => `${who} crosses `,
  line: 'Line'
})

export const directionEditor = messages({
  eitherDirection: 'Either direction',
  leftSide: 'Left side',
  rightSide: 'Right side',
  asSeen: 'Left and right as seen walking along the line, from its letter to its end.'
})

export const sentence = messages({
  crosses: '{who} crosses {line}, {path}, {overlap} over',
  directionAndSides: 'Direction and sides',
  overTheLine: 'over the line'
})
