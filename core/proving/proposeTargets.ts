import { Zone } from '../detections/zone.ts'
import { needOf } from '../detections/line.ts'
import type { Detection, TargetGated } from '../formats/plan.ts'
import { USUAL_ACTORS, type ActorKind, type Walk } from '../formats/walk.ts'
import type { TargetClass } from '../targets/classes.ts'
import { heightOf } from '../scene/camera.ts'
import { percent } from '../detections/words.ts'
import type { Ask, Draft, Found, Gap } from './drafts.ts'
import { proposeForFace } from './proposeFace.ts'
import { storm } from './proposeFrames.ts'
import { actor, bare, boxesOf, groundOf, plainWalk, type Stage, type Way } from './stage.ts'
import { ignored } from './proposeIgnored.ts'
import { Walks } from './walks.ts'
import { lineWays, zoneWays } from './ways.ts'

type Target = Exclude<TargetGated, { kind: 'classMotion' }>
const silence = { what: 'silence' } as const
/** Who stands for a class, the usual one first. */
const membersOf: Record<TargetClass, { kind: ActorKind; name: string }> = {
  person: { kind: 'adult', name: 'A person' },
  vehicle: { kind: 'car', name: 'A car' },
  cycle: { kind: 'bicycle', name: 'A cyclist' },
  animal: { kind: 'dog', name: 'A dog' },
  unknown: { kind: 'adult', name: 'Somebody' }
}
const ASKED: readonly TargetClass[] = ['person', 'vehicle', 'cycle', 'animal']
/** Before a walk in weather the picture is learned for so long. */
const LEARN = 2.5
const FASTEST = 5
/** In painted pictures every second is looked at in full. */
const BRISK = 1.6
const MOST_TOGETHER = 8

/** What a walk on a shape is to do, as a way that can be walked; null: it cannot. */
interface Ways {
  /** Those that count, with the direction of a line where it has two. */
  counts: { way: Way; key: string; name: string; direction?: 'leftToRight' | 'rightToLeft' }[]
  /** The wrong way. */
  wrong: { way: Way; name: string }[]
  beside: Way | null
  deep: Way | null
  shallow: Way | null
  gaps: Gap[]
}

/** Checks of a kind that looks at targets. */
export function proposeForTargets(ask: Ask, d: Target): Found {
  const { stage } = ask
  if (!stage)
    return {
      drafts: [],
      gaps: [
        {
          about: 'passes',
          side: 'inside',
          words:
            'The scene of this camera has not been measured, so nothing can be walked on it. Measure it on the Bench, or use a clip or a person on site.'
        }
      ],
      main: null
    }
  const who =
    membersOf[!d.classes.length || d.classes.includes('person') ? 'person' : d.classes[0]].kind
  if (d.kind === 'face') return proposeForFace(d, stage)
  const ways = d.kind === 'line' ? waysOfLine(stage, who, d) : waysOfZone(stage, who, d)
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
      name: 'A passer-by beside it',
      about: 'share',
      side: 'outside',
      walk: at.walk(ways.beside),
      expect: silence
    })
  if (ways.shallow)
    drafts.push({
      key: 'share.less',
      name: `Somewhat less than ${percent(needOf(d.sensitivity))} of the body`,
      about: 'share',
      side: 'outside',
      walk: at.walk(ways.shallow),
      expect: silence
    })
  if (ways.deep)
    drafts.push({
      key: 'share.more',
      name: `Somewhat more than ${percent(needOf(d.sensitivity))} of the body`,
      about: 'share',
      side: 'inside',
      walk: at.walk(ways.deep),
      expect: at.trigger(at.walk(ways.deep), main.direction)
    })
  for (const cls of ASKED) {
    const { kind, name } = membersOf[cls]
    const counts = !d.classes.length || d.classes.includes(cls)
    if (counts && kind === who) continue
    const other = at.walk(main.way, { kind })
    if (!bare(d, stage.tracksOf(other)).length) {
      gaps.push({
        about: 'class',
        side: counts ? 'inside' : 'outside',
        words: `${name} does not get far enough on the way that is walked.`
      })
      continue
    }
    drafts.push({
      key: `class.${cls}`,
      name: counts ? `${name} counts` : `${name}: does not count`,
      about: 'class',
      side: counts ? 'inside' : 'outside',
      walk: other,
      expect: counts ? at.trigger(other, main.direction) : silence
    })
  }
  if (who === 'adult') {
    for (const [key, kind, name] of [
      ['child', 'child', 'A child'],
      ['crouching', 'crouching', 'Somebody who crouches']
    ] as const) {
      const other = at.walk(main.way, { kind })
      // Whether the small ones count is what the size frames say.
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
        name: 'Three people together',
        about: 'passes',
        side: 'inside',
        walk: group,
        expect: { ...at.trigger(group, main.direction) }
      })
    }
  }
  for (const [key, name, speed] of [
    ['slow', 'A slow walker', 0.6],
    ['run', 'A runner', 3.5]
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
  if (d.kind === 'line') ends(at, d, main.direction, drafts, gaps)
  if (d.holdOffSeconds === 0) {
    const two: Walk = {
      ...walk,
      seconds: walk.seconds + 4,
      actors: [walk.actors[0], { ...walk.actors[0], from: 4 }]
    }
    drafts.push({
      key: 'two',
      name: 'Two, one after the other: two triggers',
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
  ignored(at, d, ask.ignore, drafts, gaps)
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

function waysOfLine(stage: Stage, who: ActorKind, d: Extract<Detection, { kind: 'line' }>): Ways {
  const found = lineWays({ stage, who }, d)
  const { left = 'left', right = 'right' } = d.sides ?? {}
  const named = { leftToRight: `From ${left} to ${right}`, rightToLeft: `From ${right} to ${left}` }
  const counted = d.direction === 'both' ? (['leftToRight', 'rightToLeft'] as const) : [d.direction]
  const counts = counted.flatMap((direction) =>
    found[direction]
      ? [
          {
            way: found[direction],
            key: `direction.${direction}`,
            name: named[direction],
            direction
          }
        ]
      : []
  )
  const other = d.direction === 'leftToRight' ? 'rightToLeft' : 'leftToRight'
  const gaps: Gap[] = counted
    .filter((direction) => !found[direction])
    .map((direction) => ({
      about: 'direction',
      side: 'inside',
      words: `${named[direction]}: the scene has no room to walk over the line so that ${percent(needOf(d.sensitivity))} of the body is over it.`
    }))
  if (!found.beside)
    gaps.push({
      about: 'share',
      side: 'outside',
      words: 'There is no way beside the line that stays in the picture.'
    })
  return {
    counts,
    wrong:
      d.direction !== 'both' && found[other]
        ? [{ way: found[other], name: `${named[other]}: does not count` }]
        : [],
    beside: found.beside,
    deep: found.deep,
    shallow: found.shallow,
    gaps
  }
}

function waysOfZone(stage: Stage, who: ActorKind, d: Extract<Detection, { zone: unknown }>): Ways {
  const found = zoneWays({ stage, who }, d)
  const need = needOf(d.sensitivity)
  const stays = 'dwellSeconds' in d ? d.dwellSeconds + 1 : 1
  const inOut =
    found.into &&
    ([found.into[0], [found.into[1][0], found.into[1][1], stays], found.into[2]] as Way)
  const leaves = d.kind === 'exit' ? found.outOf : null
  const way = d.kind === 'exit' ? leaves : inOut
  const gaps: Gap[] = way
    ? []
    : [
        {
          about: 'passes',
          side: 'inside',
          words:
            found.most < need
              ? `Nobody can stand so that ${percent(need)} of the body is in the zone; ${percent(found.most)} is the most on this scene. Raise the sensitivity, or draw the zone higher.`
              : 'The zone fills what is seen: nobody can come into it from outside.'
        }
      ]
  const named =
    d.kind === 'exit'
      ? 'Leaves the zone'
      : d.kind === 'entry'
        ? 'Enters the zone'
        : 'Goes in and stays'
  return {
    counts: way ? [{ way, key: 'passes', name: named }] : [],
    wrong:
      d.kind === 'exit' && found.into
        ? [{ way: found.into.slice(0, 2), name: 'Enters only: does not count' }]
        : d.kind === 'entry' && found.outOf
          ? [{ way: found.outOf, name: 'Leaves only: does not count' }]
          : [],
    beside: found.beside,
    deep: 'dwellSeconds' in d || d.kind === 'exit' ? null : found.deep,
    shallow: d.kind === 'exit' ? null : found.shallow,
    gaps
  }
}

/** The same near both ends of a line: a line is crossed where it suits whoever crosses it. */
function ends(
  at: Walks,
  d: Extract<Detection, { kind: 'line' }>,
  direction: 'leftToRight' | 'rightToLeft' | undefined,
  drafts: Draft[],
  gaps: Gap[]
): void {
  for (const [key, name, place] of [
    ['begin', 'Near the first vertex', 0.12],
    ['end', 'Near the last vertex', 0.88]
  ] as const) {
    const way = lineWays({ stage: at.stage, who: at.who }, d, [place])[direction ?? 'leftToRight']
    if (!way)
      gaps.push({
        about: 'passes',
        side: 'inside',
        words: `${name} nobody can walk over it with enough of the body.`
      })
    else
      drafts.push({
        key: `place.${key}`,
        name,
        about: 'passes',
        side: 'inside',
        walk: at.walk(way),
        expect: at.trigger(at.walk(way), direction)
      })
  }
}

/** Somebody just large enough and just too small, just small enough and just too large, at the place of the trigger. */
function sizes(
  at: Walks,
  d: Walks['d'],
  main: Ways['counts'][number],
  drafts: Draft[],
  gaps: Gap[]
): void {
  if (!d.size) return
  const usual = USUAL_ACTORS[at.who].tall
  const walk = at.walk(main.way)
  const moment = at.moment(walk, main.direction) ?? 0
  const boxes = boxesOf(at.stage.tracksOf(walk), 1).filter(({ time }) => time >= moment - 0.01)
  const { min, max, minMetres, maxMetres } = d.size
  const metres = boxes.flatMap((box) => heightOf(at.stage.pose, box) ?? [])
  /** By what the usual walker must grow to come just to a limit, over the rest of the walk. */
  const growth = {
    min: boxes.map(({ w, h }) => (min ? Math.min(min.w / w, min.h / h) : Infinity)),
    max: boxes.map(({ w, h }) => (max ? Math.min(max.w / w, max.h / h) : 0))
  }
  const asked: { side: 'inside' | 'outside'; key: string; name: string; by: number }[] = []
  if (minMetres)
    asked.push(
      {
        side: 'inside',
        key: 'size.small',
        name: 'Just large enough',
        by: (1.1 * minMetres) / metres[0]
      },
      {
        side: 'outside',
        key: 'size.too-small',
        name: 'Too small: does not count',
        by: (0.88 * minMetres) / Math.max(...metres)
      }
    )
  else if (min)
    asked.push(
      {
        side: 'inside',
        key: 'size.small',
        name: 'Just large enough',
        by: 1.1 * Math.max(...growth.min)
      },
      {
        side: 'outside',
        key: 'size.too-small',
        name: 'Too small: does not count',
        by: 0.9 * Math.min(...growth.min)
      }
    )
  if (maxMetres !== undefined)
    asked.push(
      {
        side: 'inside',
        key: 'size.large',
        name: 'Just small enough',
        by: (0.9 * maxMetres) / Math.max(...metres)
      },
      {
        side: 'outside',
        key: 'size.too-large',
        name: 'Too large: does not count',
        by: (1.12 * maxMetres) / Math.min(...metres)
      }
    )
  else if (max)
    asked.push(
      {
        side: 'inside',
        key: 'size.large',
        name: 'Just small enough',
        by: 0.9 * Math.min(...growth.max)
      },
      {
        side: 'outside',
        key: 'size.too-large',
        name: 'Too large: does not count',
        by: 1.1 * Math.max(...growth.max)
      }
    )
  for (const { side, key, name, by } of asked) {
    const tall = Math.round(usual * by * 100) / 100
    const scaled =
      at.who === 'car' || at.who === 'van'
        ? null
        : tall >= 0.2 && tall <= 4
          ? at.walk(main.way, { tall })
          : null
    if (!scaled || at.moment(scaled, main.direction) === null)
      gaps.push({
        about: 'size',
        side,
        words: `${name}: that would be ${tall.toFixed(2)} m tall here, which cannot be walked.`
      })
    else
      drafts.push({
        key,
        name: `${name}: ${tall.toFixed(2)} m tall`,
        about: 'size',
        side,
        walk: scaled,
        expect: side === 'inside' ? at.trigger(scaled, main.direction) : silence
      })
  }
}

/** Somebody who comes out from behind something just before the shape, and is gone before the class is sure. */
function confirm(
  at: Walks,
  d: Walks['d'],
  main: Ways['counts'][number],
  drafts: Draft[],
  gaps: Gap[]
): void {
  drafts.push({
    key: 'confirm.longer',
    name: `Seen for more than ${d.confirmSeconds} s`,
    about: 'confirm',
    side: 'inside',
    walk: at.walk(main.way),
    expect: at.trigger(at.walk(main.way), main.direction)
  })
  const dwell = 'dwellSeconds' in d ? d.dwellSeconds : 0
  const [a, b] = [main.way[0], main.way[1]]
  for (const speed of [2, 3, FASTEST])
    for (let f = 0; f <= 20; f++) {
      const metres = speed * d.confirmSeconds * 0.85
      const length = Math.hypot(b[0] - a[0], b[1] - a[1])
      const [from, to] = [(f / 20) * length, (f / 20) * length + metres]
      if (to > length || dwell >= d.confirmSeconds) continue
      const place = (m: number): readonly [number, number] => [
        a[0] + ((b[0] - a[0]) * m) / length,
        a[1] + ((b[1] - a[1]) * m) / length
      ]
      const short: Walk = { ...at.walk([place(from), place(to)], { speed }), seconds: 3 }
      if (at.moment(short, main.direction) === null) continue
      drafts.push({
        key: 'confirm.shorter',
        name: `Seen for ${(d.confirmSeconds * 0.85).toFixed(1)} s only`,
        about: 'confirm',
        side: 'outside',
        walk: short,
        expect: silence
      })
      return
    }
  gaps.push({
    about: 'confirm',
    side: 'outside',
    words: `In less than ${d.confirmSeconds} s nobody gets far enough at ${FASTEST} m/s.`
  })
}

/** Stays somewhat shorter and somewhat longer than the dwell. */
function dwells(
  at: Walks,
  d: Extract<Detection, { dwellSeconds: number }>,
  way: Way,
  drafts: Draft[],
  gaps: Gap[]
): void {
  if (d.dwellSeconds === 0) return
  const zone = new Zone(d.zone)
  const need = needOf(d.sensitivity)
  const stay = (pause: number, speed: number): { walk: Walk; seconds: number } => {
    const walk = at.walk([way[0], [way[1][0], way[1][1], pause], way[2]], { speed })
    const inside = boxesOf(at.stage.tracksOf(walk), 1).filter((box) => zone.share(box) >= need)
    return { walk, seconds: inside.length ? inside[inside.length - 1].time - inside[0].time : 0 }
  }
  const usual = USUAL_ACTORS[at.who].speed
  const through = stay(0, usual).seconds
  const long = stay(Math.max(0.5, d.dwellSeconds * 1.15 + 0.5 - through), usual)
  drafts.push({
    key: 'dwell.longer',
    name: `Stays ${long.seconds.toFixed(1)} s`,
    about: 'dwell',
    side: 'inside',
    walk: long.walk,
    expect: at.trigger(long.walk)
  })
  for (const speed of [usual, 2, 3, FASTEST]) {
    const quick = stay(0, speed).seconds
    if (quick > d.dwellSeconds * 0.85) continue
    const short = stay(Math.max(0, d.dwellSeconds * 0.8 - quick), speed)
    drafts.push({
      key: 'dwell.shorter',
      name: `Stays ${short.seconds.toFixed(1)} s only`,
      about: 'dwell',
      side: 'outside',
      walk: short.walk,
      expect: silence
    })
    return
  }
  gaps.push({
    about: 'dwell',
    side: 'outside',
    words: `Whoever goes in and out takes ${through.toFixed(1)} s, more than the dwell of ${d.dwellSeconds} s: every passer-by triggers.`
  })
}

/** A zone that counts several: a group of as many, and one fewer; short of the dwell; past it. */
function together(
  ask: Ask,
  at: Walks,
  d: Extract<Detection, { atLeast: number }>,
  way: Way,
  ways: Ways,
  gaps: Gap[]
): Found {
  if (d.atLeast > MOST_TOGETHER || at.who !== 'adult')
    return {
      drafts: [],
      gaps: [
        ...gaps,
        {
          about: 'together',
          side: 'inside',
          words: `${d.atLeast} together cannot be walked here: at most ${MOST_TOGETHER} people can. Use a clip, or people on site.`
        }
      ],
      main: null
    }
  const group = (members: number, pause: number): Walk =>
    at.walk(
      [way[0], [way[1][0], way[1][1], pause], way[2]],
      members > 1 ? { kind: 'group', members } : {}
    )
  const stays = d.dwellSeconds + 4
  const walk = group(d.atLeast, stays)
  const expect: Draft['expect'] = { what: 'trigger', from: 0, to: walk.seconds }
  const drafts: Draft[] = [
    {
      key: 'together.inside',
      name: `${d.atLeast} together`,
      about: 'together',
      side: 'inside',
      walk,
      expect
    },
    {
      key: 'together.outside',
      name: `${d.atLeast - 1} only`,
      about: 'together',
      side: 'outside',
      walk: group(d.atLeast - 1, stays),
      expect: silence
    }
  ]
  if (d.dwellSeconds > 4)
    drafts.push({
      key: 'dwell.shorter',
      name: 'They go in and come out at once',
      about: 'dwell',
      side: 'outside',
      walk: group(d.atLeast, 0),
      expect: silence
    })
  if (ways.beside)
    drafts.push({
      key: 'passer-by',
      name: 'They pass beside it',
      about: 'share',
      side: 'outside',
      walk: at.walk(ways.beside, { kind: 'group', members: d.atLeast }),
      expect: silence
    })
  if (ask.painted)
    drafts.push({
      key: 'nuisance.storm',
      name: 'Wind and rain, nobody there',
      about: 'nuisance',
      side: 'outside',
      walk: storm(9),
      through: 'pictures',
      expect: silence
    })
  return { drafts, gaps, main: { draft: drafts[0] } }
}

/** Two, one after the other: within the hold-off one trigger, after it two. */
function holdOff(
  at: Walks,
  d: Walks['d'],
  main: Ways['counts'][number],
  drafts: Draft[],
  gaps: Gap[]
): void {
  const first = at.walk(main.way)
  const moment = at.moment(first, main.direction) ?? 0
  const gone = boxesOf(at.stage.tracksOf(first), 1).at(-1)?.time ?? first.seconds
  // The second one must be gone before the hold-off has passed: who is still over then triggers late.
  for (const [side, gap, times] of [
    ['outside', d.holdOffSeconds - (gone - moment) - 0.5, 1],
    ['inside', d.holdOffSeconds + 1.5, 2]
  ] as const) {
    if (gap < 0.5 || gap > 600) {
      gaps.push({
        about: 'holdOff',
        side,
        words: `A hold-off of ${d.holdOffSeconds} s is too ${gap < 0.5 ? 'short' : 'long'} to be walked.`
      })
      continue
    }
    const walk: Walk = {
      ...first,
      seconds: Math.ceil(first.seconds + gap),
      actors: [first.actors[0], { ...first.actors[0], from: gap }]
    }
    drafts.push({
      key: `hold-off.${side}`,
      name:
        side === 'outside'
          ? `A second one after ${gap.toFixed(1)} s: one trigger`
          : `A second one after ${gap.toFixed(1)} s: two triggers`,
      about: 'holdOff',
      side,
      walk,
      expect: { what: 'trigger', from: Math.max(0, moment - 0.5), to: walk.seconds, times }
    })
  }
}

/** A way that begins and ends farther off: who is found in pictures must have been seen for a while. */
function fromAfar(way: Way): Way {
  const farther = (end: Way[number], next: Way[number]): Way[number] => {
    const length = Math.hypot(end[0] - next[0], end[1] - next[1])
    const by = Math.min(
      2,
      end[1] < next[1]
        ? Math.max(0, ((end[1] - 1.5) * length) / Math.max(0.01, next[1] - end[1]))
        : 2
    )
    return length > 0
      ? [end[0] + ((end[0] - next[0]) * by) / length, end[1] + ((end[1] - next[1]) * by) / length]
      : end
  }
  return [
    farther(way[0], way[1]),
    ...way.slice(1, -1),
    farther(way[way.length - 1], way[way.length - 2])
  ]
}

/** The same walk in weather and at night, looked at through painted pictures; and weather without anybody. */
function weathers(at: Walks, main: Ways['counts'][number], drafts: Draft[]): void {
  const walk = at.walk(fromAfar(main.way), {
    from: LEARN,
    ...(at.who === 'adult' && { speed: BRISK })
  })
  const at0 = at.moment(walk, main.direction) ?? 0
  // What is found in pictures is found somewhat later, and not to the frame.
  const expect: Draft['expect'] = {
    what: 'trigger',
    from: Math.max(0, at0 - 1.5),
    to: Math.min(walk.seconds, at0 + at.d.confirmSeconds + 3),
    ...(main.direction && { direction: main.direction })
  }
  drafts.push({
    through: 'pictures',
    key: 'weather.rain',
    name: 'In wind and rain',
    about: 'passes',
    side: 'inside',
    walk: storm(walk.seconds, walk.actors),
    expect
  })
  drafts.push({
    through: 'pictures',
    key: 'weather.snow',
    name: 'In snow',
    about: 'passes',
    side: 'inside',
    walk: { ...walk, weather: { ...walk.weather, snow: 0.4 } },
    expect
  })
  drafts.push({
    through: 'pictures',
    key: 'weather.night',
    name: 'At night',
    about: 'passes',
    side: 'inside',
    walk: { ...walk, light: 'infrared' },
    keepLight: true,
    expect
  })
  drafts.push({
    through: 'pictures',
    key: 'nuisance.storm',
    name: 'Wind and rain, nobody there',
    about: 'nuisance',
    side: 'outside',
    walk: storm(9),
    expect: silence
  })
  const gull = groundOf(at.stage.pose, 0.5, 0.6)
  if (gull)
    drafts.push({
      through: 'pictures',
      key: 'nuisance.gull',
      name: 'A gull flies through',
      about: 'nuisance',
      side: 'outside',
      walk: {
        ...plainWalk(10, [
          {
            ...actor('gull', [], { from: LEARN }),
            way: [
              [gull[0] - 6, gull[1], 0, 1.6],
              [gull[0] + 6, gull[1], 0, 2.2]
            ]
          }
        ]),
        weather: { ...walk.weather, wind: 0.3 }
      },
      expect: silence
    })
}
