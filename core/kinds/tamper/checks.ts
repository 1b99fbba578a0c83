import { said } from '../../messages/said.ts'
import type { FaultKind, Walk } from '../../formats/walk.ts'
import type { Ask, Draft, Found, Gap } from '../../proving/drafts.ts'
import {
  LEARN,
  mainOf,
  silence,
  snowfall,
  storm,
  unpaintable,
  within
} from '../../proving/pictures.ts'
import { plainWalk } from '../../proving/stage.ts'
import { TAMPER_CAUSES, type TamperCause, type TamperDetection } from './schema.ts'

/** The fault that makes a cause, and the other way around (simulation/script). */
const faultOf: Record<TamperCause, FaultKind> = {
  covered: 'covered',
  dark: 'lightsOut',
  washedOut: 'washedOut',
  outOfFocus: 'defocused',
  moved: 'knocked'
}
/** Each cause, longer and shorter than the delay, and what resembles tamper. */
export function tamperChecks(ask: Ask, d: TamperDetection): Found {
  if (!ask.painted) return unpaintable('cause')
  const long = Math.min(60, d.delaySeconds + 2.5)
  const faulty = (kind: FaultKind, seconds: number): Walk => ({
    ...plainWalk(Math.ceil(LEARN + seconds + 1), []),
    faults: [{ kind, from: LEARN, to: LEARN + seconds }]
  })
  const drafts: Draft[] = TAMPER_CAUSES.map((cause): Draft => {
    const counts = d.causes.includes(cause)
    return {
      key: `cause.${cause}`,
      name: counts
        ? said(`faultNames.${cause}`)
        : said('checkNames.notCounted', said(`faultNames.${cause}`)),
      about: 'cause',
      side: counts ? 'inside' : 'outside',
      walk: faulty(faultOf[cause], long),
      expect: counts
        ? ({ ...within(LEARN, LEARN + d.delaySeconds + 3), cause } as Draft['expect'])
        : silence
    }
  })
  const first = faultOf[d.causes[0]!]
  const gaps: Gap[] = []
  if (d.delaySeconds >= 1) {
    drafts.push({
      key: 'delay.shorter',
      name: said('checkNames.causeShort', said(`faultNames.${d.causes[0]!}`), d.delaySeconds * 0.6),
      about: 'delay',
      side: 'outside',
      walk: faulty(first, d.delaySeconds * 0.6),
      expect: silence
    })
    drafts.push({
      key: 'delay.longer',
      name: said('checkNames.causeFor', said(`faultNames.${d.causes[0]!}`), long),
      about: 'delay',
      side: 'inside',
      walk: faulty(first, long),
      expect: within(LEARN, LEARN + d.delaySeconds + 3)
    })
  } else
    gaps.push({
      about: 'delay',
      side: 'outside',
      words: said('checkGaps.noDelay')
    })
  drafts.push({
    key: 'nuisance.headlights',
    name: said('checkNames.headlights'),
    about: 'nuisance',
    side: 'outside',
    walk: { ...plainWalk(LEARN + 6, []), light: 'night', headlights: [{ from: LEARN, takes: 4 }] },
    keepLight: true,
    expect: silence
  })
  drafts.push({
    key: 'nuisance.storm',
    name: said('checkNames.stormEmpty'),
    about: 'nuisance',
    side: 'outside',
    walk: storm(9),
    expect: silence
  })
  drafts.push({
    key: 'nuisance.snow',
    name: said('checkNames.snowEmpty'),
    about: 'nuisance',
    side: 'outside',
    walk: snowfall(9),
    expect: silence
  })
  return { drafts, gaps, main: mainOf(drafts.find((x) => x.side === 'inside')) }
}
