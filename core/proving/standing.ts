import type { Said } from '../messages/said.ts'
import { offsetAt } from '../arming/zone.ts'
import type { Actions, Endpoint } from '../formats/actions.ts'
import { ABOUT, type About, type Check } from '../formats/check.ts'
import type { Camera, Detection, Plan } from '../formats/plan.ts'
import type { Gap } from './drafts.ts'

/** All settings that a check of a detection depends on. */
export interface Settings {
  detection: Detection
  plan: Pick<Plan, 'schedules' | 'timeZone' | 'position'>
  camera: Pick<Camera, 'ignore' | 'scene'>
  actions: Actions
  endpoints: readonly Endpoint[]
}

/**
 * A text that is the same as long as nothing that the check depends on has changed: the detection, its hours, the scene,
 * what it is linked to with its hours, and the check itself. A proof under another text is out of date.
 */
export function settingsText(
  check: Check,
  { detection, plan, camera, actions, endpoints }: Settings
): string {
  const linked = actions.links.flatMap((id) => endpoints.find((e) => e.id === id) ?? [])
  const hours = [detection.schedule, ...linked.map((e) => e.schedule)].flatMap(
    (id) => plan.schedules.find((s) => s.id === id) ?? []
  )
  return JSON.stringify([
    // What somebody wrote about it changes nothing that it does.
    { ...detection, note: undefined },
    hours,
    plan.timeZone,
    plan.position ?? null,
    camera.ignore,
    camera.scene ?? null,
    actions,
    linked,
    check
  ])
}

/** Hours that are tied to the sun move from day to day by less than this. */
const SAME_HOUR_MS = 20 * 60_000
const DAY = 24 * 60 * 60_000

/**
 * Whether a proposal still is what is kept; the day on which it is walked, and with it the light,
 * makes no difference.
 */
export function isSameCheck(a: Check, b: Check, timeZone: string): boolean {
  const plain = (c: Check): string =>
    JSON.stringify({
      ...c,
      // What it is called makes no difference either.
      name: '',
      at: 0,
      ...(c.by.how === 'walk' && { by: { ...c.by, walk: { ...c.by.walk, light: 'day' } } })
    })
  const clock = (c: Check): number => (c.at + offsetAt(timeZone, c.at) * 60_000) % DAY
  const apart = Math.abs(clock(a) - clock(b))
  return plain(a) === plain(b) && Math.min(apart, DAY - apart) < SAME_HOUR_MS
}

/** What a detection's gates have checks for: on the side that passes, and on the other. */
export interface Coverage {
  about: About
  inside: number
  outside: number
  /** Why there can be none on a side. */
  cannot: { inside: Said | null; outside: Said | null }
}

/** Which gates of a detection have a check on both sides of their limit, in the order of the ladder. */
export function coverageOf(checks: readonly Check[], gaps: readonly Gap[]): Coverage[] {
  return ABOUT.flatMap((about) => {
    const own = checks.filter((c) => c.about === about)
    const missing = gaps.filter((g) => g.about === about)
    if (!own.length && !missing.length) return []
    const why = (side: 'inside' | 'outside'): Said | null =>
      missing.find((g) => g.side === side)?.words ?? null
    return [
      {
        about,
        inside: own.filter((c) => c.side === 'inside').length,
        outside: own.filter((c) => c.side === 'outside').length,
        cannot: { inside: why('inside'), outside: why('outside') }
      }
    ]
  })
}

/** The proof of a detection, from what became of its checks. */
export interface Proof {
  checks: number
  /** Checks that expect silence. */
  silences: number
  /** Passed and failed under the settings as they are now. */
  passed: number
  failed: number
  /** Run, but under other settings. */
  outdated: number
  /** Names of those that failed. */
  failing: (Said | string)[]
}

/** @param results what became of each check last, by id; `current`: under the settings as they are now */
export function proofOf(
  checks: readonly Check[],
  results: ReadonlyMap<string, { passed: boolean; current: boolean }>
): Proof {
  const of = (c: Check): { passed: boolean; current: boolean } | undefined => results.get(c.id)
  return {
    checks: checks.length,
    silences: checks.filter((c) => c.expect.what === 'silence').length,
    passed: checks.filter((c) => of(c)?.current && of(c)!.passed).length,
    failed: checks.filter((c) => of(c)?.current && !of(c)!.passed).length,
    outdated: checks.filter((c) => of(c) && !of(c)!.current).length,
    failing: checks.filter((c) => of(c)?.current && !of(c)!.passed).map((c) => c.name)
  }
}
