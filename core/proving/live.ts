import { said, type Said } from '../messages/said.ts'
import * as v from 'valibot'
import { planDeliveries, type SiteActions } from '../actions/plan.ts'
import type { DeliveryView } from '../api.ts'
import type { Ladder, Trigger } from '../detections/index.ts'
import type { Actions } from '../formats/actions.ts'
import { CheckSchema, type Check } from '../formats/check.ts'
import type { EffectSeen, Verdict } from './judge.ts'
import type { Severity } from '../kinds/parts.ts'

/** A walk test: a check that is walked in front of the live camera. Instants are milliseconds of UTC. */

/** What is expected to follow from a trigger, and what has come so far. */
export interface LiveEffect {
  endpoint: string
  name: string
  kind: DeliveryView['kind']
  /** Whether it is to act. */
  expected: boolean
  state: 'waiting' | 'came' | 'stayedOut' | 'failed'
  by: DeliveryView['by'] | null
  /** Seconds after the trigger; null: it has not come. */
  after: number | null
  /** What is in the way, or why it was not to act; null: nothing to say. */
  words: Said | string | null
}

/** What a walk is made of. */
export const WalkOrderSchema = v.strictObject({ check: CheckSchema })

export interface WalkTestView {
  id: number
  camera: string
  check: Check
  /** By a simulated scene, or by somebody on site. */
  how: 'scene' | 'person'
  state: 'preparing' | 'walking' | 'settling' | 'done' | 'stopped' | 'failed'
  /** Null: it has not begun. */
  beganAt: number | null
  seconds: number
  /** The target that has come nearest, with its gates; null: nobody was seen yet. */
  ladder: Ladder | null
  /** How many targets the camera has reported. */
  targets: number
  /** Of the check's detection, as the camera reported them, in seconds of the walk. */
  triggers: (Trigger & { id: number; alarm: number })[]
  /** Other detections of the camera that triggered meanwhile. */
  others: { detection: string; name: string; time: number }[]
  effects: LiveEffect[]
  verdict: Verdict | null
  /** Whether what came of it is kept with the check: a check that is kept, as it is kept. */
  kept: boolean
  /** Why it could not be walked. */
  error: Said | string | null
}

/**
 * What is to follow from the first trigger, and what has: all that the detection is linked to and all that the check
 * names.
 *
 * @param occasion `instant`: at which hours are read
 * @param trigger `deliveries` of the trigger, as they are now; left out: there was no trigger yet
 * @param over whether nothing is waited for any more
 */
export function liveEffects(
  check: Check,
  actions: Actions,
  site: SiteActions,
  occasion: { instant: number; severity: Severity },
  trigger: { heardAt: number; deliveries: readonly DeliveryView[] } | null,
  over: boolean
): LiveEffect[] {
  const planned = planDeliveries(
    { ...occasion, lastActedAt: null, byCamera: new Set() },
    actions,
    site
  )
  const ids = [
    ...new Set([...planned.map((p) => p.endpoint.id), ...check.effects.map((e) => e.endpoint)])
  ]
  return ids.map((id): LiveEffect => {
    const endpoint = site.endpoints.find((e) => e.id === id)
    const plan = planned.find((p) => p.endpoint.id === id)
    const expected =
      check.effects.find((e) => e.endpoint === id)?.acts ??
      (plan !== undefined && plan.held === null)
    const base = {
      endpoint: id,
      name: endpoint?.name ?? id,
      kind: endpoint?.kind ?? ('webhook' as const),
      expected,
      by: plan?.by ?? null,
      after: null
    }
    const done = trigger?.deliveries.find(
      (d) => d.name === endpoint?.name && d.kind === endpoint.kind && d.does === 'on'
    )
    if (!endpoint)
      return {
        ...base,
        state: expected ? 'failed' : 'stayedOut',
        words: said('effects.gone')
      }
    if (!plan)
      return {
        ...base,
        state: expected ? 'failed' : 'stayedOut',
        words: said('effects.notLinkedHere')
      }
    if (done?.state === 'sent')
      return {
        ...base,
        by: done.by,
        state: 'came',
        after: Math.max(0, ((done.sentAt ?? trigger!.heardAt) - trigger!.heardAt) / 1000),
        words: null
      }
    if (done?.state === 'failed')
      return {
        ...base,
        by: done.by,
        state: 'failed',
        words: done.error ?? said('effects.notConfirmed')
      }
    if (done?.state === 'held')
      return { ...base, state: expected ? 'failed' : 'stayedOut', words: done.error }
    if (trigger && !done)
      return {
        ...base,
        state: expected ? 'failed' : 'stayedOut',
        words: said('effects.paused')
      }
    if (!over) return { ...base, state: 'waiting', words: plan.held }
    return {
      ...base,
      state: expected ? 'failed' : 'stayedOut',
      words: trigger
        ? (done?.error ??
          ('sound' in endpoint
            ? said('effects.noScreenOpen')
            : done?.by === 'camera'
              ? said('effects.cameraSilent')
              : said('effects.notInTime')))
        : said('effects.noTrigger')
    }
  })
}

/** As a verdict keeps them. */
export const seenEffects = (effects: readonly LiveEffect[]): EffectSeen[] =>
  effects.map(({ endpoint, name, expected, state, after, words }) => {
    const acts = state === 'came'
    return {
      endpoint,
      name,
      expected,
      acts,
      wrong:
        acts === expected
          ? null
          : acts
            ? said('effects.acts')
            : (words ?? said('effects.didNotCome')),
      ...(after !== null && { after })
    }
  })

/**
 * Why the camera reported no trigger, as far as can be told.
 *
 * @param computed what the detection makes of the targets that the camera reported; null: none
 * @param found what readiness finds about this detection, worst first
 */
export function likelyCause(computed: Ladder | null, found: readonly Said[]): Said {
  const [likely] = found
  if (!computed)
    return likely
      ? said('causesOfSilence.nobodyReportedLikely', likely)
      : said('causesOfSilence.nobodyReported')
  if (!computed.fired) return computed.sentence
  return likely
    ? said('causesOfSilence.shouldHaveLikely', computed.time, likely)
    : said('causesOfSilence.ownAnalysis', computed.time)
}
