import { messages } from '../../messages.ts'

export const useShapes = messages({
  the: (kind: string, why: string) => `The ${kind} ${why}.`,
  drawIgnoreArea: (value: number) => `Draw ignore area ${value}`,
  deleteIgnoreArea: (value: number) => `Delete ignore area ${value}`,
  duplicateIgnoreArea: (value: number) => `Duplicate ignore area ${value}`,
  turnOver: (name: string) => `Turn ${name} over`,
  chooseTheVertexAtWhich: (kind: string) =>
    `Choose the vertex at which the ${kind} is to be cut: click it, or press Tab with the picture in focus.`,
  theCannotBeCutAt: (kind: string) => `The ${kind} cannot be cut at this vertex.`,
  cutIgnoreArea: (value: number) => `Cut ignore area ${value}`,
  cutInTwo: (name: string) => `Cut ${name} in two`
})

export const copyTo = messages({
  atTheSamePlaceOf: 'at the same place of the ground',
  atTheSamePlaceOf2:
    'at the same place of the picture, as not both scenes are measured on that ground',
  cutOffAtTheEdge: 'cut off at the edge of that picture',
  withoutItsSizeInMetres: 'without its size in metres, as that scene is not measured',
  copyFromAnotherCamera: (name: string) => `Copy ${name} from another camera`,
  isOnNow: (name: string, name2: string) => `${name} is on ${name2} now`
})

export const useCopyTo = messages({
  takenBack: 'Taken back.',
  takeItBack: 'Take it back'
})
