import { messages } from '../../messages.ts'

export const useShapes = messages({
  chooseTheVertexAtWhich: (kind: string) =>
    `Select the vertex at which to split the ${kind}: click it, or press Tab with the picture in focus.`,
  theCantBeSplit: (kind: string) => `The ${kind} can’t be split at this vertex.`
})

export const copyTo = messages({
  atTheSamePlaceOf: 'at the same place on the ground',
  atTheSamePlaceOf2: 'at the same place in the picture, as not both scenes are calibrated',
  cutOffAtTheEdge: 'cut at the edge of the picture',
  withoutItsSizeInMetres: 'without its size in metres, as that scene is not calibrated',
  copiedTo: (name: string, name2: string) => `${name} copied to ${name2}`
})

export const useCopyTo = messages({
  undone: 'Undone.'
})
