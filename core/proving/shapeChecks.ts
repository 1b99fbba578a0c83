import { said } from '../messages/said.ts'
import { needOf } from '../detections/need.ts'
import type { ActorKind, Walk } from '../formats/walk.ts'
import type { ShapeDetection, TargetDetection } from '../kinds/schemas.ts'
import type { TargetClass } from '../targets/classes.ts'
import type { Ask, Draft, Found, Gap } from './drafts.ts'
import { confirm, dwells, holdOff, sizes } from './gateChecks.ts'
import { silence } from './pictures.ts'
import { ignored, type Candidate } from './proposeIgnored.ts'
import type { Ways } from './shapeWays.ts'
import { bare, type Stage } from './stage.ts'
import { together } from './togetherChecks.ts'
import { Walks } from './walks.ts'
import { weathers } from './weatherChecks.ts'

/** Who stands for a class, the usual one first. */
const membersOf: Record<TargetClass, ActorKind> = {
  person: 'adult',
  vehicle: 'car',
  cycle: 'bicycle',
  animal: 'dog',
  unknown: 'adult'
}
const ASKED: readonly TargetClass[] = ['person', 'vehicle', 'cycle', 'animal']
/** What checks about a line or a zone ask of their kind. */
export interface OnShape {
  ways: (stage: Stage, who: ActorKind) => Ways
  /** Walks that trigger at several places of the shape; those with the feet in an ignore area are of use. */
  places: (at: Walks) => Iterable<Candidate>
  /** What the kind proposes besides. */
  more?: (at: Walks, main: Ways['counts'][number], drafts: Draft[], gaps: Gap[]) => void
}

const unmeasured: Found = {
  drafts: [],
  gaps: [
    {
      about: 'passes',
      side: 'inside',
      words: said('checkGaps.notCalibrated')
    }
  ],
  main: null
}

/** Proposes for a stage, where there is one. */
export const onStage = ({ stage }: Ask, propose: (stage: Stage) => Found): Found =>
  stage ? propose(stage) : unmeasured

/** Who stands for those that a detection counts: a person if persons count. */
const usualActor = ({ classes }: TargetDetection): ActorKind =>
  membersOf[!classes.length || classes.includes('person') ? 'person' : classes[0]!]

/** Checks of a kind with a line or a zone: every gate on both sides, by everybody who may come, in all weathers. */
export function shapeChecks(ask: Ask, d: ShapeDetection, stage: Stage, kind: OnShape): Found {
  const who = usualActor(d)
  const ways = kind.ways(stage, who)
  const at = new Walks(stage, d, who)
  const drafts: Draft[] = []
  const gaps = [...ways.gaps]
  const [main] = ways.counts
  if (!main) return { drafts, gaps, main: null }
  if ('atLeast' in d && d.atLeast > 1) return together(ask, at, d, main.way, ways, gaps)
  for (const { way, key, name, direction } of ways.counts)
    drafts.push({
      key,
      name,
      about: direction ? 'direction' : 'passes',
      side: 'inside',
      walk: at.walk(way),
      expect: at.trigger(at.walk(way), direction)
    })
  for (const { way, name } of ways.wrong)
    drafts.push({
      key: 'direction.other',
      name,
      about: 'direction',
      side: 'outside',
      walk: at.walk(way),
      expect: silence
    })
  const [walk, expect] = [at.walk(main.way), at.trigger(at.walk(main.way), main.direction)]
  if (ways.beside)
    drafts.push({
      key: 'passer-by',
      name: said('checkNames.passesBeside'),
      about: 'share',
      side: 'outside',
      walk: at.walk(ways.beside),
      expect: silence
    })
  if (ways.shallow)
    drafts.push({
      key: 'share.less',
      name: said('checkNames.overlapBelow', needOf(d.sensitivity)),
      about: 'share',
      side: 'outside',
      walk: at.walk(ways.shallow),
      expect: silence
    })
  if (ways.deep)
    drafts.push({
      key: 'share.more',
      name: said('checkNames.overlapAbove', needOf(d.sensitivity)),
      about: 'share',
      side: 'inside',
      walk: at.walk(ways.deep),
      expect: at.trigger(at.walk(ways.deep), main.direction)
    })
  for (const cls of ASKED) {
    const kind = membersOf[cls]
    const name = said(`walkers.${cls}`)
    const counts = !d.classes.length || d.classes.includes(cls)
    if (counts && kind === who) continue
    const other = at.walk(main.way, { kind })
    if (!bare(d, stage.tracksOf(other)).length) {
      gaps.push({
        about: 'class',
        side: counts ? 'inside' : 'outside',
        words: said('checkGaps.tooShortPath', name)
      })
      continue
    }
    drafts.push({
      key: `class.${cls}`,
      name: counts ? said('checkNames.counted', name) : said('checkNames.notCounted', name),
      about: 'class',
      side: counts ? 'inside' : 'outside',
      walk: other,
      expect: counts ? at.trigger(other, main.direction) : silence
    })
  }
  if (who === 'adult') {
    for (const [key, kind, name] of [
      ['child', 'child', said('checkNames.child')],
      ['crouching', 'crouching', said('checkNames.crouching')]
    ] as const) {
      const other = at.walk(main.way, { kind })
      // The size limits decide whether the small ones count.
      if (!d.size && bare(d, stage.tracksOf(other)).length)
        drafts.push({
          key: `person.${key}`,
          name,
          about: 'passes',
          side: 'inside',
          walk: other,
          expect: at.trigger(other, main.direction)
        })
    }
    if (d.holdOffSeconds === 0 && !d.size) {
      const group = at.walk(main.way, { kind: 'group', members: 3 })
      drafts.push({
        key: 'person.group',
        name: said('checkNames.groupOfThree'),
        about: 'passes',
        side: 'inside',
        walk: group,
        expect: { ...at.trigger(group, main.direction) }
      })
    }
  }
  for (const [key, name, speed] of [
    ['slow', said('checkNames.slowWalker'), 0.6],
    ['run', said('checkNames.runner'), 3.5]
  ] as const) {
    const other = at.walk(main.way, { speed })
    if (who === 'adult' && at.moment(other, main.direction) !== null)
      drafts.push({
        key: `person.${key}`,
        name,
        about: 'passes',
        side: 'inside',
        walk: other,
        expect: at.trigger(other, main.direction)
      })
  }
  kind.more?.(at, main, drafts, gaps)
  if (d.holdOffSeconds === 0) {
    const two: Walk = {
      ...walk,
      seconds: walk.seconds + 4,
      actors: [walk.actors[0]!, { ...walk.actors[0]!, from: 4 }]
    }
    drafts.push({
      key: 'two',
      name: said('checkNames.twoInTurn'),
      about: 'passes',
      side: 'inside',
      walk: two,
      expect: {
        what: 'trigger',
        from: expect.what === 'trigger' ? expect.from : 0,
        to: two.seconds,
        times: 2
      }
    })
  }
  sizes(at, d, main, drafts, gaps)
  ignored(at, kind.places(at), ask.ignore, drafts, gaps)
  if (d.confirmSeconds > 0) confirm(at, d, main, drafts, gaps)
  if ('dwellSeconds' in d) dwells(at, d, main.way, drafts, gaps)
  if (d.holdOffSeconds > 0) holdOff(at, d, main, drafts, gaps)
  if (ask.painted) weathers(at, main, drafts)
  return {
    drafts,
    gaps,
    main: { draft: { key: 'main', name: main.name, about: 'passes', side: 'inside', walk, expect } }
  }
}
