import { readFile } from 'node:fs/promises'
import { EndpointHours, type SiteActions } from '../../core/actions/plan.ts'
import type { Evidence, Setting } from '../../core/detections/index.ts'
import type { Actions } from '../../core/formats/actions.ts'
import type { Check } from '../../core/formats/check.ts'
import { readFaces } from '../../core/formats/faces.ts'
import { readMot } from '../../core/formats/mot.ts'
import type { Plan } from '../../core/formats/plan.ts'
import { readMeasures } from '../../core/measures/measures.ts'
import { judge, type Verdict } from '../../core/proving/judge.ts'
import type { Ask } from '../../core/proving/drafts.ts'
import { proposeChecks, type Proposals } from '../../core/proving/propose.ts'
import { armInputsOf } from '../../simulation/evidence.ts'
import { evidenceOf, gridFor, lookFor } from './evidence.ts'
import { playOf, stageOf, type Ground } from './stage.ts'

/** Clips are read from their files here. */
export interface ClipSource {
  tracks: string
  faces: string
  measures: string
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

export type Answer<J extends Job = Job> = J extends { what: 'propose' } ? Proposals : Verdict

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
      measures: readMeasures(await readFile(clip.measures))
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

process.on('message', ({ id, job }: { id: number; job: Job }) => {
  const work = async (): Promise<Answer> => (job.what === 'propose' ? propose(job) : prove(job))
  work().then(
    (answer) => process.send!({ id, answer }),
    (error: Error) => process.send!({ id, error: error.stack ?? String(error) })
  )
})
// Ctrl-C reaches a whole group of processes; the server ends this one when it has ended its runs.
// Without it there is nothing to do.
process.on('SIGINT', () => {})
process.on('disconnect', () => process.exit())
