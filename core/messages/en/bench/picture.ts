import { messages } from '../../messages.ts'

export const shape = messages({
  ignoreArea: (value: number) => `Ignore area ${value}`,
  line: 'line',
  zone: 'zone',
  ignoreArea2: 'ignore area'
})

export const fitted = messages({
  wholePicture: 'whole picture'
})

export const framesLayer = messages({
  smallest: 'smallest',
  largest: 'largest',
  noYet: (name: string) => `no ${name} yet`
})

export const targetBrackets = messages({
  m: (cls: string, id: number, metres: string | null, passes: boolean) =>
    `${cls} ${id}${metres === null ? '' : ` · ${metres} m`}${passes ? '' : ' · not selected'}`
})

export const cellTools = messages({
  cells: 'Cells',
  paintOn: 'Paint on',
  paintOff: 'Paint off',
  brush: 'Brush',
  rectangle: 'Rectangle',
  paintTheCellsWhereMotion: 'Paint the cells where motion counts.'
})

export const picture = messages({
  clip: (name: string) => `Clip ${name}`
})

export const stage = messages({
  clickWhereTheGoes: (kind: string) => `Click where the ${kind} goes.`,
  enterOrADoubleClick: (kind: string) => `Enter or a double click finishes the ${kind}.`,
  esc: 'Esc',
  cancels: 'cancels.',
  pictureDrawingAnA: (name: boolean, name2: string, points: number) =>
    `Picture: drawing ${name ? 'an' : 'a'} ${name2}, ${points} vertices so far`,
  pictureCalibration: 'Picture: calibration',
  picture: 'Picture',
  pictureOf: (name: string, vertex: number | null, points: number) =>
    `Picture: ${name}${vertex === null ? '' : `, vertex ${vertex} of ${points}`}`
})
