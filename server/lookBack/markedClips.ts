import type { ArmInputs } from '../../core/arming/armInputs.ts'
import type { Mark } from '../../core/marks/marks.ts'
import type { Tracks } from '../../core/targets/tracks.ts'
import { findClip } from '../clips/queries.ts'
import type { Clips } from '../clips/service.ts'
import type { Database } from '../database.ts'
import { listMarks } from './markQueries.ts'

/** A mark and its moment, ms: of UTC, or on a clip from its beginning. */
export interface MarkAt {
  at: number
  target: number | null
  mark: Mark['mark']
}

/** A clip on which something was marked: a stretch of its own. */
export interface MarkedClip {
  tracks: Tracks
  /** The instant of frame 1, ms of UTC. */
  start: number
  seconds: number
  inputs: ArmInputs
  marks: MarkAt[]
}

/**
 * What was marked of a detection, in the past from one instant to another and on clips. A clip that was saved from the
 * past is that past, where this is asked for: it does not count twice.
 */
export async function markedOf(
  database: Database,
  clips: Clips,
  camera: string,
  detection: string,
  { from, to }: { from: number; to: number }
): Promise<{ marks: MarkAt[]; clips: MarkedClip[] }> {
  const marks: MarkAt[] = []
  const onClips = new Map<string, MarkAt[]>()
  for (const { clip, at, target, mark, ...of } of await listMarks(database, camera)) {
    if (of.detection !== detection) continue
    if (clip !== null) onClips.set(clip, [...(onClips.get(clip) ?? []), { at, target, mark }])
    else if (at >= from && at < to) marks.push({ at, target, mark })
  }
  const marked: MarkedClip[] = []
  for (const [id, own] of onClips) {
    const clip = await findClip(database, id)
    if (clip?.state !== 'ready') continue
    const { start, frames, fps, inputs } = clip
    if (clip.reported && start >= from && start + (1000 * frames) / fps <= to) {
      marks.push(...own.map((mark) => ({ ...mark, at: start + mark.at })))
      continue
    }
    const { tracks } = await clips.readEvidence(clip)
    marked.push({ tracks, start, seconds: frames / fps, inputs, marks: own })
  }
  return { marks, clips: marked }
}
