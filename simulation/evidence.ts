import type { ArmInputs } from '../core/arming/armInputs.ts'
import { faceKey, type Face } from '../core/targets/faces.ts'
import { tracksFromRows, type Tracks } from '../core/targets/tracks.ts'
import { QUALITIES, reportedTargets } from './reported.ts'
import type { Play, Script } from './script.ts'
import { truth } from './truth.ts'
import { actorsOf } from './world.ts'

/** The ground truth of a script: its true targets with their faces, as a clip's analysis would have them. */
export function trueTracks(play: Play): Tracks {
  const tracks = tracksFromRows(reportedTargets(play, QUALITIES.true), play.scene.fps)
  const faces = new Map<string, Face>()
  const actors = actorsOf(play.script)
  let frame = 0
  let seen: ReturnType<typeof truth> = []
  for (let i = 0; i < tracks.length; i++) {
    if (tracks.frame[i] !== frame) {
      frame = tracks.frame[i]!
      seen = truth(play, (frame - 1) / play.scene.fps, actors)
    }
    const face = seen.find((t) => t.id === tracks.id[i])?.face
    if (face)
      faces.set(faceKey(frame, tracks.id[i]!), { ...face.box, mask: face.mask, name: face.name })
  }
  return { ...tracks, faces }
}

/** What the script's contacts do, for a clip that starts at an instant (milliseconds of UTC). */
export const armInputsOf = (
  { script }: { script: Pick<Script, 'inputs'> },
  start: number
): ArmInputs =>
  Object.fromEntries(
    Object.entries(script.inputs).map(([id, changes]) => [
      id,
      changes
        .map(({ at, set }) => ({ at: start + Math.round(at * 1000), set }))
        .sort((a, b) => a.at - b.at)
    ])
  )
