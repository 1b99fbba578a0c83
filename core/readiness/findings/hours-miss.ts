import { said, type Said } from '../../messages/said.ts'
import { saidStretch } from '../../arming/stretches.ts'
import { actionsOf, linksOf, ofDetection, perDetection } from '../facts.ts'

/** Rounding of a minute a week is no gap. */
const MINUTES = 1
const MAX_STRETCHES = 2

export const hoursMiss = perDetection('hours-miss', (d, camera, facts) =>
  linksOf(camera, d, facts).flatMap(({ endpoint }) => {
    const { armed, acting } = facts.hours.coverage(d.schedule, endpoint.schedule)
    const actions = actionsOf(camera, d)
    if (armed - acting < MINUTES || actions.accepted.includes(endpoint.id)) return []
    const name = (id: string | undefined): Said | string =>
      facts.schedules.find((s) => s.id === id)?.name ?? said('readiness.allTheTime')
    const { stretches } = facts.hours.silent(d.schedule, endpoint.schedule)
    const shown = stretches.slice(0, MAX_STRETCHES).map(saidStretch)
    const more = stretches.length - MAX_STRETCHES
    const sentence =
      acting < MINUTES
        ? said(
            'readiness.neverActs',
            endpoint.name,
            d.name,
            name(endpoint.schedule),
            name(d.schedule)
          )
        : said('readiness.gap', endpoint.name, (armed - acting) / armed, d.name, shown, more)
    return {
      ...ofDetection('warning', 'linked', camera, d, sentence, {
        does: 'endpoint',
        words: said('readiness.follow', name(d.schedule)),
        endpoint: { ...endpoint, schedule: d.schedule }
      }),
      orElse: {
        does: 'actions' as const,
        words: said('readiness.markIntended'),
        camera: camera.id,
        detection: d.id,
        actions: { ...actions, accepted: [...actions.accepted, endpoint.id] }
      }
    }
  })
)
