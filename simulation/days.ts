import { wallInstant } from '../core/arming/zone.ts'
import { emptyColumns, mergeRows, type ReportedColumns } from '../core/lookBack/rows.ts'
import { classIndex } from '../core/targets/classes.ts'
import { randomFrom } from './random.ts'
import { QUALITIES, reportedTargets } from './reported.ts'
import type { Scene, Script } from './script.ts'
import { actorsOf, secondsOf } from './world.ts'

/** Something that happens again and again in front of a camera: actors of one of its scripts, at other times and places. */
export interface Habit {
  script: string
  /** Which of the script's actors come, from 0; left out: all. */
  actors?: readonly number[]
  /** How often on a day, on average. */
  perDay: number
  /** Between which hours of the site's clock. */
  hours: readonly [from: number, to: number]
  /** By what pauses on the way are multiplied, at least and at most. */
  pauses?: readonly [least: number, most: number]
  /** How well the camera sees meanwhile. */
  quality?: keyof typeof QUALITIES
}

/** Somebody's coming and going. */
export interface SimulatedVisit {
  /** The instant of its beginning, ms of UTC. */
  at: number
  script: Script
  rows: ReportedColumns
}

/** What a camera has reported of a day. */
export interface SimulatedDay {
  rows: ReportedColumns
  visits: SimulatedVisit[]
  /** The place of the habit in the list, by number of the target. */
  habitOf: Map<number, number>
  /** The first number that no target has. */
  nextTarget: number
}

/** How often in a second a camera tells what it sees. */
const FPS = 4
/** Nobody walks just there twice. Metres, and shares of the speed. */
const ASIDE = 0.4
const SPEEDS = 0.15

/**
 * A day in front of a camera, as it reports it: nothing is painted.
 *
 * @param date of the site's clock, such as `2026-11-24`
 * @param until ms of UTC: who would come later does not
 * @param firstTarget the number of the first target
 */
export function simulateDay(
  { scene, scripts }: { scene: Scene; scripts: readonly Script[] },
  habits: readonly Habit[],
  {
    date,
    timeZone,
    until,
    seed,
    firstTarget
  }: { date: string; timeZone: string; until: number; seed: number; firstTarget: number }
): SimulatedDay {
  const seen = { ...scene, fps: FPS }
  const random = randomFrom(seed)
  const between = (least: number, most: number): number => least + (most - least) * random()
  const visits: SimulatedVisit[] = []
  const habitOf = new Map<number, number>()
  let nextTarget = firstTarget
  habits.forEach((habit, place) => {
    const script = scripts.find(({ id }) => id === habit.script)
    if (!script) throw new Error(`a habit names the script ${habit.script}, which there is not`)
    // As often as said on average: the rest of it by chance.
    const times = Math.floor(habit.perDay * between(0.8, 1.2) + random())
    for (let k = 0; k < times; k++) {
      const at = instantOf(date, between(...habit.hours), timeZone)
      const visit = visitOf(script, habit, between)
      if (at + visit.seconds * 1000 >= until) continue
      const rows = reportedTargets(
        { scene: seen, script: visit },
        QUALITIES[habit.quality ?? 'good']
      )
      const numbers = new Map<number, number>()
      const columns = emptyColumns(rows.length)
      rows.forEach((row, i) => {
        if (!numbers.has(row.id)) {
          numbers.set(row.id, nextTarget)
          habitOf.set(nextTarget++, place)
        }
        columns.at[i] = at + Math.round((1000 * (row.frame - 1)) / FPS)
        columns.target[i] = numbers.get(row.id)!
        columns.cls[i] = classIndex(row.cls)
        columns.x[i] = row.x
        columns.y[i] = row.y
        columns.w[i] = row.w
        columns.h[i] = row.h
        columns.likelihood[i] = row.confidence
      })
      visits.push({ at, script: visit, rows: columns })
    }
  })
  return { rows: mergeRows(visits.map((v) => v.rows)), visits, habitOf, nextTarget }
}

/** An hour of a day on the clock of the site, such as 9.5, as ms of UTC. */
function instantOf(date: string, hour: number, timeZone: string): number {
  const seconds = Math.min(86_399, Math.floor(3600 * hour))
  return wallInstant(`${date}T${new Date(1000 * seconds).toISOString().slice(11, 19)}`, timeZone)!
}

/** A habit's script as it is played this time: a little beside the way of last time, sooner or later, quicker or slower. */
function visitOf(
  script: Script,
  { actors, pauses = [1, 1] }: Habit,
  between: (least: number, most: number) => number
): Script {
  const chosen = script.actors.filter((_, i) => actors?.includes(i) ?? true)
  const first = Math.min(...chosen.map(({ from }) => from))
  const visit: Script = {
    ...script,
    seed: Math.floor(between(0, 2 ** 31)),
    faults: [],
    actors: chosen.map((actor) => {
      const [dx, dz] = [between(-ASIDE, ASIDE), between(-ASIDE, ASIDE)]
      const longer = between(...pauses)
      return {
        ...actor,
        from: actor.from - first,
        ...(actor.speed !== undefined && {
          speed: actor.speed * between(1 - SPEEDS, 1 + SPEEDS)
        }),
        way: actor.way.map(
          ([x, z, pause = 0, y = 0]) =>
            [x + dx, z + dz, pause * longer, y] as [number, number, number, number]
        )
      }
    })
  }
  return { ...visit, seconds: Math.ceil(Math.max(...actorsOf(visit).map(secondsOf))) }
}
