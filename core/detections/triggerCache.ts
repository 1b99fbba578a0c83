import type { Measures } from '../measures/measures.ts'
import { isFrameKind } from '../formats/plan.ts'
import { firstRowOfFrame, type Tracks } from '../targets/tracks.ts'
import { evaluate, type Setting } from './evaluator.ts'
import type { Trigger } from './types.ts'

/**
 * The triggers of a clip while its setting is edited: a detection is evaluated again only when it, its schedule or what
 * all share (ignore areas, scene, clip) has changed. Detections do not know of each other, so that each one's triggers
 * are what the evaluation of all together gives.
 */
export class TriggerCache {
  private readonly keys = new Map<string, string>()

  /** Another clip: nothing is known of it. */
  forget(): void {
    this.keys.clear()
  }

  /**
   * Triggers of the detections that have to be evaluated again since the last call, by detection; of
   * the others they are as they were.
   *
   * @param first told the newest triggers, from a frame on, before all of a long stretch has been looked at; they may
   *   differ from the whole where something began long before that frame
   */
  changed(
    { camera, plan, ...clip }: Setting,
    tracks: Tracks,
    measures: Measures | null,
    first?: (found: Map<string, Trigger[]>, since: number) => void
  ): Map<string, Trigger[]> {
    const shared = JSON.stringify([camera.ignore, camera.scene, plan.timeZone, plan.position, clip])
    const stale = camera.detections.filter((d) => {
      const key = `${JSON.stringify([d, plan.schedules.find(({ id }) => id === d.schedule)])} ${shared}`
      const same = this.keys.get(d.id) === key
      this.keys.set(d.id, key)
      return !same
    })
    for (const id of this.keys.keys())
      if (!camera.detections.some((d) => d.id === id)) this.keys.delete(id)
    const found = new Map<string, Trigger[]>(stale.map(({ id }) => [id, []]))
    if (!stale.length) return found
    try {
      if (first && tracks.length > 2 * NEWEST_ROWS)
        tellNewest(first, { ...clip, plan, camera: { ...camera, detections: stale } }, tracks)
      for (const trigger of evaluate(
        { ...clip, plan, camera: { ...camera, detections: stale } },
        tracks,
        measures
      ))
        found.get(trigger.detection)!.push(trigger)
    } catch (error) {
      // Asked again, they are tried again.
      for (const { id } of stale) this.keys.delete(id)
      throw error
    }
    return found
  }
}

/** Of a long stretch so many rows are looked at first. */
const NEWEST_ROWS = 100_000
/** So long before those, so that most stays that go on have begun. */
const WARM_UP_SECONDS = 120

/** The triggers of the last rows, of detections that look at targets. */
function tellNewest(
  first: (found: Map<string, Trigger[]>, since: number) => void,
  setting: Setting,
  tracks: Tracks
): void {
  const detections = setting.camera.detections.filter((d) => !isFrameKind(d))
  if (!detections.length) return
  const since = tracks.frame[tracks.length - NEWEST_ROWS]!
  const row = firstRowOfFrame(tracks, since - WARM_UP_SECONDS * tracks.fps)
  const found = new Map<string, Trigger[]>(detections.map(({ id }) => [id, []]))
  for (const trigger of evaluate(
    { ...setting, camera: { ...setting.camera, detections } },
    rowsFrom(tracks, row)
  ))
    if (trigger.frame >= since) found.get(trigger.detection)!.push(trigger)
  first(found, since)
}

/** The rows from one on, without copying them. */
const rowsFrom = (t: Tracks, row: number): Tracks => ({
  ...t,
  length: t.length - row,
  frame: t.frame.subarray(row),
  id: t.id.subarray(row),
  x: t.x.subarray(row),
  y: t.y.subarray(row),
  w: t.w.subarray(row),
  h: t.h.subarray(row),
  cls: t.cls.subarray(row),
  confidence: t.confidence.subarray(row)
})

/**
 * Triggers of several detections in the order in which one evaluation of all gives them: time,
 * detection as in the plan, target.
 */
export function inOrderOf(
  ids: readonly string[],
  triggers: ReadonlyMap<string, readonly Trigger[]>
): Trigger[] {
  const place = new Map(ids.map((id, i) => [id, i]))
  return ids
    .flatMap((id) => triggers.get(id) ?? [])
    .sort(
      (a, b) =>
        a.frame - b.frame ||
        place.get(a.detection)! - place.get(b.detection)! ||
        (a.target ?? 0) - (b.target ?? 0)
    )
}
