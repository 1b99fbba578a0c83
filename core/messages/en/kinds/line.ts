import { messages } from '../../messages.ts'

export const words = messages({
  eitherWayBetweenAnd: (left: string, right: string) => `either way between ${left} and ${right}`,
  fromTo: (left: string, right: string) => `from ${left} to ${right}`,
  fromTo2: (right: string, left: string) => `from ${right} to ${left}`,
  lineCrossing: 'Line crossing',
  crosses: (d: string) => `${d} crosses `,
  line: 'Line'
})

export const directionEditor = messages({
  nameTheSide: (which: string) => `Name the ${which} side`,
  changeTheDirection: 'Change the direction',
  eitherWay: 'Either way',
  leftSide: 'Left side',
  rightSide: 'Right side',
  leftAndRightAsSeen:
    'Left and right as seen by someone who walks the line from its letter to its end.'
})

export const sentence = messages({
  a: 'A',
  crosses: 'crosses',
  directionAndSides: 'Direction and sides',
  with: ', with',
  overTheLine: 'over the line',
  over: 'over,'
})
