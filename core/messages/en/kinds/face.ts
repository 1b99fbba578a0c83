import { messages } from '../../messages.ts'

export const words = messages({
  withOrWithoutAMask: 'with or without a mask',
  aMask: (mask: string) => `${mask} a mask`,
  whoeverItIs: 'whoever it is',
  nobodyYet: 'nobody yet',
  of: (names: string) => `of ${names}`,
  ofAnybodyBut: (names: string) => `of anybody but ${names}`,
  faceAt: 'Face at '
})

export const editors = messages({
  smallestFace: (name: string) => `Smallest face, ${name}`,
  changeTheSmallestFace: 'Change the smallest face',
  theDashedFrameOnThe:
    'The dashed frame on the picture; drag its corner. Smaller faces do not count.',
  withOrWithoutAMask: 'With or without a mask',
  withAMask: 'With a mask',
  withoutAMask: 'Without a mask',
  changeTheMaskCondition: 'Change the mask condition',
  whereItCannotBeTold: 'Where it cannot be told, only “with or without” counts.',
  whoeverItIs: 'Whoever it is',
  somebodyOnTheList: 'Somebody on the list',
  anybodyNotOnTheList: 'Anybody not on the list',
  changeTheListCondition: 'Change the list condition',
  namesOnTheListSeparated: 'Names on the list, separated by commas',
  changeTheListOfFaces: 'Change the list of faces',
  whoSomebodyIsComesFrom: 'Who somebody is comes from the camera; footage alone does not tell it.'
})

export const sentence = messages({
  aFaceAt: 'A face at',
  smallestFace: 'Smallest face',
  ofAtLeast: (w: string, h: string) => `of at least ${w} × ${h}`,
  listOfFaces: 'List of faces',
  onA: ', on a'
})

export const faceLayer = messages({
  atkinsonHyperlegibleNextVariable: "'Atkinson Hyperlegible Next Variable', sans-serif",
  noMask: 'no mask',
  tooSmall: (text: string) => `${text}, too small`,
  smallestFace: 'smallest face'
})
