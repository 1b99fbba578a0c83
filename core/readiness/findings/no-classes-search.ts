import { ofDetection, perDetection } from '../facts.ts'

export const noClassesSearch = perDetection('no-classes-search', (d, camera) =>
  'classes' in d && d.classes.length === 0
    ? ofDetection(
        'hint',
        'drawn',
        camera,
        d,
        `${d.name} counts every class: animals and the unknown set it off, and its events cannot be searched by class.`
      )
    : []
)
