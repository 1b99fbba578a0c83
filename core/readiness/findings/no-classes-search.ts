import { inUse, ofDetection, type Check } from '../facts.ts'

export const noClassesSearch: Check = {
  code: 'no-classes-search',
  find: ({ cameras }) => cameras.flatMap((camera) => inUse(camera).filter((d) => 'classes' in d && d.classes.length === 0).map((d) => ofDetection('no-classes-search', 'hint', 'drawn', camera, d, `${d.name} counts every class: animals and the unknown set it off, and its events cannot be searched by class.`)))
}
