import { list } from '../../format.ts'
import { messages } from '../../messages.ts'

export const words = messages({
  withOrWithoutAMask: 'with or without a mask',
  withAMask: 'with a mask',
  withoutAMask: 'without a mask',
  anyFace: 'any face',
  nobodyYet: 'no names yet',
  of: (names: string) => `of ${names}`,
  ofAnyoneBut: (names: string) => `of anyone but ${names}`,
  or: (names: readonly string[]) => list(names, 'or'),
  faceAt: 'Face at '
})

export const editors = messages({
  dashedFrame: 'The dashed frame on the picture. Drag its corner; smaller faces are ignored.',
  smallestFace: (name: string) => `Smallest face, ${name}`,
  withOrWithoutAMask: 'With or without a mask',
  withAMask: 'With a mask',
  withoutAMask: 'Without a mask',
  aFaceWhoseMask: 'A face whose mask is not recognised counts only “with or without a mask”.',
  anyFace: 'Any face',
  listed: 'Only faces on the list',
  notListed: 'Only faces not on the list',
  names: 'Names on the list, separated by commas',
  fromTheCamera: 'The camera recognises the face; footage alone does not tell who it is.'
})

export const sentence = messages({
  aFace: 'A face at {name}, {size}',
  smallestFace: 'Smallest face',
  atLeast: (size: string) => `at least ${size}`,
  faceList: 'Face list',
  onA: (who: string) => `on a ${who}`
})

export const faceLayer = messages({
  face: 'face',
  mask: 'mask',
  noMask: 'no mask',
  tooSmall: (text: string) => `${text}, too small`,
  smallestFace: 'smallest face'
})
