import { said } from '../messages/said.ts'
import { USUAL_ACTORS, type Walk, type WalkActor } from '../formats/walk.ts'
import type { Ask, Draft, Found, Gap } from '../proving/drafts.ts'
import { mainOf, silence, snowfall, storm, unpaintable } from '../proving/pictures.ts'
import { actor, groundOf, plainWalk, secondsOf, type Way } from '../proving/stage.ts'
import type { TargetClass } from '../targets/classes.ts'
import type { ClassMotionDetection } from './classMotion/schema.ts'
import type { MotionDetection } from './motion/schema.ts'

/** A walk of somebody through the cells; null where no ground is seen in them. */
type Sample = (kind: WalkActor['kind'], speed: number) => Walk | null

/**
 * Somebody who walks through the cells, nobody, and what resembles motion.
 *
 * @param kind classes that count, none: all; how near the walk must be, as the share of the ground in the cells that is
 * nearer; and what else the kind proposes
 */
export function cellsChecks(
  { stage, painted }: Ask,
  d: MotionDetection | ClassMotionDetection,
  kind: {
    classes: readonly TargetClass[]
    near: number
    more?: (sample: Sample, bySomebody: (walk: Walk) => Draft['expect']) => Draft[]
  }
): Found {
  if (!painted) return unpaintable('cells')
  const { classes: counted, near, more } = kind
  const way = stage ? acrossCells(stage.pose, d.cells, near) : null
  const drafts: Draft[] = []
  const gaps: Gap[] = []
  const sample: Sample = (kind, speed) =>
    way &&
    plainWalk(Math.ceil(4 + secondsOf(way, speed) + 1), [actor(kind, way, { from: 4, speed })])
  const person = sample('adult', USUAL_ACTORS.adult.speed)
  const bySomebody = (walk: Walk): Draft['expect'] => ({
    what: 'trigger',
    from: 3.5,
    to: walk.seconds
  })
  const personCounts = !counted.length || counted.includes('person')
  if (person) {
    drafts.push({
      key: 'cells.person',
      name: personCounts ? said('checkNames.throughCells') : said('checkNames.throughCellsNot'),
      about: 'cells',
      side: personCounts ? 'inside' : 'outside',
      walk: person,
      expect: personCounts ? bySomebody(person) : silence
    })
    drafts.push({
      key: 'night',
      name: said('checkNames.sameAtNight'),
      about: 'passes',
      side: 'inside',
      walk: { ...person, light: 'infrared' },
      keepLight: true,
      expect: personCounts ? bySomebody(person) : silence
    })
  } else
    gaps.push({
      about: 'cells',
      side: 'inside',
      words: said('checkGaps.noGroundInCells')
    })
  drafts.push({
    key: 'cells.nobody',
    name: said('checkNames.nobody'),
    about: 'cells',
    side: 'outside',
    walk: plainWalk(8, []),
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
  drafts.push({
    key: 'nuisance.headlights',
    name: said('checkNames.headlights'),
    about: 'nuisance',
    side: 'outside',
    walk: { ...plainWalk(9, []), light: 'night', headlights: [{ from: 3, takes: 4 }] },
    keepLight: true,
    expect: silence
  })
  if (more) drafts.push(...more(sample, bySomebody))
  return {
    drafts,
    gaps,
    main: mainOf(drafts.find((x) => x.side === 'inside' && x.about === 'cells'))
  }
}

/** A way through selected cells, four metres to both sides, on ground that is nearer than all but a share of them. */
function acrossCells(
  pose: Parameters<typeof groundOf>[0],
  cells: readonly string[],
  share: number
): Way | null {
  const places: [number, number][] = cells.flatMap((row, j) =>
    [...row].flatMap((c, i): [number, number][] =>
      c === '1' ? [[(i + 0.5) / row.length, (j + 0.5) / cells.length]] : []
    )
  )
  const grounds = places
    .flatMap(([x, y]) => {
      const at = groundOf(pose, x, y)
      return at && at[1] < 25 ? [at] : []
    })
    .sort((a, b) => a[1] - b[1])
  const middle = grounds.at(Math.floor(grounds.length * share))
  if (!middle) return null
  const z = Math.round(Math.max(middle[1], 4) * 10) / 10
  return [
    [middle[0] - 4, z],
    [middle[0] + 4, z]
  ]
}
