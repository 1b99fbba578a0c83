import { said } from '../../messages/said.ts'
import { hasShape } from '../../kinds/schemas.ts'
import { actionsOf, linksOf, ofDetection, perDetection } from '../facts.ts'

export const noStationPush = perDetection('no-station-push', (d, camera, facts) => {
  const station = facts.endpoints.find(({ endpoint }) => 'accepts' in endpoint)
  const links = linksOf(camera, d, facts)
  if (
    !station ||
    // A monitoring station is there for what guards a perimeter.
    !hasShape(d) ||
    !links.length ||
    links.some(({ endpoint }) => 'accepts' in endpoint)
  )
    return []
  const actions = actionsOf(camera, d)
  if (actions.accepted.includes(station.endpoint.id)) return []
  return {
    ...ofDetection(
      'warning',
      'linked',
      camera,
      d,
      said('readiness.noStation', station.endpoint.name, d.name),
      {
        does: 'actions',
        words: said('readiness.addStation'),
        camera: camera.id,
        detection: d.id,
        actions: { ...actions, links: [...actions.links, station.endpoint.id] }
      }
    ),
    orElse: {
      does: 'actions' as const,
      words: said('readiness.markIntended'),
      camera: camera.id,
      detection: d.id,
      actions: { ...actions, accepted: [...actions.accepted, station.endpoint.id] }
    }
  }
})
