import type { Measures } from '../measures/measures.ts'
import type { Tracks } from '../targets/tracks.ts'
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
   */
  changed(
    { camera, plan, ...clip }: Setting,
    tracks: Tracks,
    measures: Measures | null
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
