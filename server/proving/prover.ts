import { readFile } from 'node:fs/promises'
import type { Canvas } from '@napi-rs/canvas'
import { EndpointHours, type SiteActions } from '../../core/actions/plan.ts'
import type { Evidence, Setting } from '../../core/detections/index.ts'
import type { Actions } from '../../core/formats/actions.ts'
import type { Check } from '../../core/formats/check.ts'
import { readFaces } from '../../core/formats/faces.ts'
import { readMot, writeMot } from '../../core/formats/mot.ts'
import type { Detection, Plan } from '../../core/formats/plan.ts'
import { readMeasures } from '../../core/measures/measures.ts'
import { judge, type Verdict } from '../../core/proving/judge.ts'
import type { Ask } from '../../core/proving/drafts.ts'
import { proposeChecks, type Proposals } from '../../core/proving/propose.ts'
import { firstRowOfFrame, rowAt, type TargetRow, type Tracks } from '../../core/targets/tracks.ts'
import { armInputsOf, trueTracks } from '../../simulation/evidence.ts'
import { makeNodeCanvas } from '../../simulation/nodeCanvas.ts'
import { pictureAt as faultAt } from '../../simulation/faults/faults.ts'
import { Painter } from '../../simulation/paint/painter.ts'
import { pictureAt } from '../../analysis/pictures.ts'
import { drawSnapshot } from '../deliveries/snapshot.ts'
import { evidenceOf, gridFor, lookFor } from './evidence.ts'
import { playOf, stageOf, type Ground } from './stage.ts'

/** Clips are read from their files here. */
export interface ClipSource {
  tracks: string
  faces: string
  /** Null: it has none, as of what a camera reported. */
  measures: string | null
  fps: number
  width: number
  height: number
  start: number
  inputs: Setting['inputs']
}

export type Job =
  | {
      what: 'propose'
      ask: Omit<Ask, 'stage' | 'painted' | 'inputName'>
      ground: Ground | null
      inputs: Record<string, string>
    }
  | {
      what: 'judge'
      check: Check
      ground: Ground | null
      clip: ClipSource | null
      plan: Plan
      actions: Actions
      site: Omit<SiteActions, 'hours'>
    }
  | PictureJob

/** What the trigger of a check looks like. */
export interface PictureJob {
  what: 'picture'
  check: Check
  detection: Detection
  ground: Ground | null
  clip: (ClipSource & { view: string }) | null
  /** Seconds and frame at which to look, and the target that is marked there. */
  time: number
  frame: number
  target: number | undefined
  /** What is shown of a walk on bare ground, which nothing can be painted of: base64. Null: nothing. */
  background: string | null
}

/** The picture as JPEG in base64, null where nothing can be shown; the targets as MOTChallenge text. */
export interface Shown {
  jpeg: string | null
  tracks: string
  fps: number
  width: number
  height: number
}

export type Answer<J extends Job = Job> = J extends { what: 'propose' }
  ? Proposals
  : J extends { what: 'picture' }
    ? Shown | null
    : Verdict

const [, , folder] = process.argv as [string, string, string]

const propose = ({ ask, ground, inputs }: Extract<Job, { what: 'propose' }>): Proposals =>
  proposeChecks({
    ...ask,
    stage: ground && stageOf(ground),
    painted: ground?.painted ?? false,
    inputName: (id) => inputs[id] ?? id
  })

async function prove({
  check,
  ground,
  clip,
  plan,
  actions,
  site
}: Extract<Job, { what: 'judge' }>): Promise<Verdict> {
  const camera = plan.cameras[0]!
  const detection = camera.detections.find(({ id }) => id === check.detection)
  const follows = {
    actions,
    site: { ...site, hours: new EndpointHours(plan.schedules, plan.timeZone, plan.position) }
  }
  if (clip) {
    const tracks = readMot(await readFile(clip.tracks, 'utf8'), clip.fps, clip)
    const evidence: Evidence = {
      tracks: { ...tracks, faces: readFaces(await readFile(clip.faces, 'utf8'), clip) },
      measures: clip.measures === null ? null : readMeasures(await readFile(clip.measures))
    }
    return judge(check, evidence, {
      setting: { plan, camera, fps: clip.fps, start: clip.start, inputs: clip.inputs },
      follows
    })
  }
  if (check.by.how !== 'walk' || !ground || !detection)
    throw new Error('there is nothing to walk on')
  const play = playOf(ground.scene, check.by.walk)
  const evidence = await evidenceOf(
    play,
    lookFor(detection, check.by.through),
    gridFor(detection),
    folder
  )
  return judge(check, evidence, {
    setting: {
      plan,
      camera,
      fps: play.scene.fps,
      start: check.at,
      inputs: armInputsOf(play, check.at)
    },
    follows
  })
}

/** @returns null: there is neither a clip nor a walk */
async function show(job: PictureJob): Promise<Shown | null> {
  const { check, clip, ground, time, frame, target } = job
  const at = (tracks: Tracks): TargetRow | null => {
    for (let i = firstRowOfFrame(tracks, frame); tracks.frame[i] === frame; i++)
      if (tracks.id[i] === target) return rowAt(tracks, i)
    return null
  }
  const shown = async (
    of: Buffer | null,
    tracks: Tracks,
    { fps, width, height }: { fps: number; width: number; height: number }
  ): Promise<Shown> => ({
    jpeg:
      of &&
      (await drawSnapshot(of, job.detection, target === undefined ? null : at(tracks))).toString(
        'base64'
      ),
    tracks: writeMot(tracks, { width, height }),
    fps,
    width,
    height
  })
  if (clip) {
    const tracks = readMot(await readFile(clip.tracks, 'utf8'), clip.fps, clip)
    return shown(await pictureAt(clip.view, time), tracks, clip)
  }
  if (check.by.how !== 'walk' || !ground) return null
  const play = playOf(ground.scene, check.by.walk)
  const tracks = trueTracks(play)
  if (!ground.painted)
    return shown(job.background ? Buffer.from(job.background, 'base64') : null, tracks, play.scene)
  // Of a camera that gives no picture there is nothing to show.
  if (faultAt(play.script, 'none', time) !== null) return shown(null, tracks, play.scene)
  const painter = new Painter(play, makeNodeCanvas)
  painter.paint(time)
  return shown((painter.canvas as Canvas).toBuffer('image/jpeg'), tracks, play.scene)
}

process.on('message', ({ id, job }: { id: number; job: Job }) => {
  const work = async (): Promise<Answer> =>
    job.what === 'propose' ? propose(job) : job.what === 'picture' ? show(job) : prove(job)
  work().then(
    (answer) => process.send!({ id, answer }),
    (error: Error) => process.send!({ id, error: error.stack ?? String(error) })
  )
})
// Ctrl-C reaches a whole group of processes; the server ends this one when it has ended its runs.
// Without it there is nothing to do.
process.on('SIGINT', () => {})
process.on('disconnect', () => process.exit())
