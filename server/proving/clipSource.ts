import { Failure } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import { findClip } from '../clips/queries.ts'
import type { Clips } from '../clips/service.ts'
import type { Database } from '../database.ts'
import type { ClipSource } from './prover.ts'

/** Where the targets of a camera's clip are. @throws Failure when it cannot be judged on */
export async function clipSource(
  database: Database,
  clips: Clips,
  camera: string,
  id: string
): Promise<ClipSource> {
  const clip = await findClip(database, id)
  if (!clip || clip.camera !== camera) throw new Failure(said('verdicts.clipGone'))
  if (clip.state !== 'ready') throw new Failure(said('verdicts.clipNotAnalysed', clip.name))
  const file = (name: 'tracks.csv' | 'faces.csv' | 'measures.bin'): string => clips.file(id, name)
  return {
    tracks: file('tracks.csv'),
    faces: file('faces.csv'),
    measures: clip.reported ? null : file('measures.bin'),
    fps: clip.fps,
    width: clip.width,
    height: clip.height,
    start: clip.start,
    inputs: clip.inputs
  }
}
