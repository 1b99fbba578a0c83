import { said } from '../../messages/said.ts'
import { ofDetection, perDetection } from '../facts.ts'

export const noClassesSearch = perDetection('no-classes-search', (d, camera) =>
  'classes' in d && d.classes.length === 0
    ? ofDetection('hint', 'drawn', camera, d, said('readiness.noClassesSearch', d.name))
    : []
)
