import { said } from '../../messages/said.ts'
import { ofDetection, perDetection, actionsOf, inUse, linksOf } from '../facts.ts'

export const nothingLinked = perDetection('nothing-linked', (d, camera, facts) => {
  if (linksOf(camera, d, facts).length) return []
  // Motion may be there only for motion by class, which does nothing without it.
  if (d.kind === 'motion' && inUse(camera).some((other) => other.kind === 'classMotion')) return []
  const usual =
    facts.usual?.links.filter((id) => facts.endpoints.some(({ endpoint }) => endpoint.id === id)) ??
    []
  const words = said('readiness.nothingLinked', d.name)
  return usual.length
    ? ofDetection('blocking', 'linked', camera, d, words, {
        does: 'actions',
        words: said('readiness.addDefaults'),
        camera: camera.id,
        detection: d.id,
        actions: { ...actionsOf(camera, d), links: usual }
      })
    : ofDetection('blocking', 'linked', camera, d, words, {
        does: 'go',
        words: said('readiness.addAction'),
        to: `/actions?camera=${camera.id}&detection=${d.id}`
      })
})
