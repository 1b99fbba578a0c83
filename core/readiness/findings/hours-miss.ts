import { inWords } from '../../arming/stretches.ts'
import { actionsOf, linksOf, ofDetection, perDetection } from '../facts.ts'

/** Rounding of a minute a week is no gap. */
const MINUTES = 1
const MAX_STRETCHES = 2

export const hoursMiss = perDetection('hours-miss', (d, camera, facts) =>
  linksOf(camera, d, facts).flatMap(({ endpoint }) => {
    const { armed, acting } = facts.hours.coverage(d.schedule, endpoint.schedule)
    const actions = actionsOf(camera, d)
    if (armed - acting < MINUTES || actions.accepted.includes(endpoint.id)) return []
    const name = (id: string | undefined): string =>
      facts.schedules.find((s) => s.id === id)?.name ?? 'all hours'
    const { stretches } = facts.hours.silent(d.schedule, endpoint.schedule)
    const said = stretches.slice(0, MAX_STRETCHES).map(inWords).join('; ')
    const more = stretches.length - MAX_STRETCHES
    const words =
      acting < MINUTES
        ? `${endpoint.name} never acts for ${d.name}: its hours (${name(endpoint.schedule)}) do not meet ${name(d.schedule)}.`
        : `${endpoint.name} is silent for ${Math.round((100 * (armed - acting)) / armed)} % of the hours in which ${d.name} is armed: ${said}${more > 0 ? `; and ${more} more` : ''}.`
    return {
      ...ofDetection('warning', 'linked', camera, d, words, {
        does: 'endpoint',
        words: `Let it follow ${name(d.schedule)}`,
        endpoint: { ...endpoint, schedule: d.schedule }
      }),
      orElse: {
        does: 'actions' as const,
        words: 'It is meant so',
        camera: camera.id,
        detection: d.id,
        actions: { ...actions, accepted: [...actions.accepted, endpoint.id] }
      }
    }
  })
)
