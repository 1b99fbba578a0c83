import { said } from '../messages/said.ts'
import { needOf } from '../detections/need.ts'
import { Zone } from '../detections/zone.ts'
import { USUAL_ACTORS, type Walk } from '../formats/walk.ts'
import type { Detection } from '../kinds/schemas.ts'
import { heightOf } from '../scene/camera.ts'
import type { Draft, Gap } from './drafts.ts'
import { silence } from './pictures.ts'
import type { Ways } from './shapeWays.ts'
import { boxesOf, type Way } from './stage.ts'
import type { Walks } from './walks.ts'

/** Checks on both sides of one gate each. */

/** The fastest that anybody is asked to run, metres per second. */
const FASTEST = 5

/** Somebody just large enough and just too small, just small enough and just too large, at the place of the trigger. */
export function sizes(
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
  type SizeName = 'largeEnough' | 'tooSmall' | 'smallEnough' | 'tooLarge'
  const asked: { side: 'inside' | 'outside'; key: string; name: SizeName; by: number }[] = []
  if (minMetres)
    asked.push(
      {
        side: 'inside',
        key: 'size.small',
        name: 'largeEnough',
        by: (1.1 * minMetres) / metres[0]!
      },
      {
        side: 'outside',
        key: 'size.too-small',
        name: 'tooSmall',
        by: (0.88 * minMetres) / Math.max(...metres)
      }
    )
  else if (min)
    asked.push(
      {
        side: 'inside',
        key: 'size.small',
        name: 'largeEnough',
        by: 1.1 * Math.max(...growth.min)
      },
      {
        side: 'outside',
        key: 'size.too-small',
        name: 'tooSmall',
        by: 0.9 * Math.min(...growth.min)
      }
    )
  if (maxMetres !== undefined)
    asked.push(
      {
        side: 'inside',
        key: 'size.large',
        name: 'smallEnough',
        by: (0.9 * maxMetres) / Math.max(...metres)
      },
      {
        side: 'outside',
        key: 'size.too-large',
        name: 'tooLarge',
        by: (1.12 * maxMetres) / Math.min(...metres)
      }
    )
  else if (max)
    asked.push(
      {
        side: 'inside',
        key: 'size.large',
        name: 'smallEnough',
        by: 0.9 * Math.min(...growth.max)
      },
      {
        side: 'outside',
        key: 'size.too-large',
        name: 'tooLarge',
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
        words: said('checkGaps.cannotBeSoTall', said(`checkNames.${name}`, tall))
      })
    else
      drafts.push({
        key,
        name: said(`checkNames.${name}`, tall),
        about: 'size',
        side,
        walk: scaled,
        expect: side === 'inside' ? at.trigger(scaled, main.direction) : silence
      })
  }
}

/** Somebody who comes out from behind something just before the shape, and is gone before the class is sure. */
export function confirm(
  at: Walks,
  d: Walks['d'],
  main: Ways['counts'][number],
  drafts: Draft[],
  gaps: Gap[]
): void {
  drafts.push({
    key: 'confirm.longer',
    name: said('checkNames.seenLonger', d.confirmSeconds),
    about: 'confirm',
    side: 'inside',
    walk: at.walk(main.way),
    expect: at.trigger(at.walk(main.way), main.direction)
  })
  const dwell = 'dwellSeconds' in d ? d.dwellSeconds : 0
  const [a, b] = [main.way[0]!, main.way[1]!]
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
        name: said('checkNames.seenShorter', d.confirmSeconds * 0.85),
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
    words: said('checkGaps.confirmTooShort', d.confirmSeconds, FASTEST)
  })
}

/** Stays somewhat shorter and somewhat longer than the dwell. */
export function dwells(
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
    const walk = at.walk([way[0]!, [way[1]![0], way[1]![1], pause], way[2]!], { speed })
    const inside = boxesOf(at.stage.tracksOf(walk), 1).filter((box) => zone.share(box) >= need)
    return { walk, seconds: inside.length ? inside[inside.length - 1]!.time - inside[0]!.time : 0 }
  }
  const usual = USUAL_ACTORS[at.who].speed
  const through = stay(0, usual).seconds
  const long = stay(Math.max(0.5, d.dwellSeconds * 1.15 + 0.5 - through), usual)
  drafts.push({
    key: 'dwell.longer',
    name: said('checkNames.stays', long.seconds),
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
      name: said('checkNames.staysShort', short.seconds),
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
    words: said('checkGaps.dwellTooShort', through, d.dwellSeconds)
  })
}

/** Two, one after the other: within the re-trigger delay one trigger, after it two. */
export function holdOff(
  at: Walks,
  d: Walks['d'],
  main: Ways['counts'][number],
  drafts: Draft[],
  gaps: Gap[]
): void {
  const first = at.walk(main.way)
  const moment = at.moment(first, main.direction) ?? 0
  const gone = boxesOf(at.stage.tracksOf(first), 1).at(-1)?.time ?? first.seconds
  // The second one must be gone before the re-trigger delay has passed: who is still over then triggers late.
  for (const [side, gap, times] of [
    ['outside', d.holdOffSeconds - (gone - moment) - 0.5, 1],
    ['inside', d.holdOffSeconds + 1.5, 2]
  ] as const) {
    if (gap < 0.5 || gap > 600) {
      gaps.push({
        about: 'holdOff',
        side,
        words: said('checkGaps.holdOffNotWalkable', d.holdOffSeconds, gap < 0.5)
      })
      continue
    }
    const walk: Walk = {
      ...first,
      seconds: Math.ceil(first.seconds + gap),
      actors: [first.actors[0]!, { ...first.actors[0]!, from: gap }]
    }
    drafts.push({
      key: `hold-off.${side}`,
      name:
        side === 'outside'
          ? said('checkNames.secondWithin', gap)
          : said('checkNames.secondAfter', gap),
      about: 'holdOff',
      side,
      walk,
      expect: { what: 'trigger', from: Math.max(0, moment - 0.5), to: walk.seconds, times }
    })
  }
}
