import { mkdir } from 'node:fs/promises'
import { dirname } from 'node:path'
import type { ArmInputs } from '../../core/arming/armInputs.ts'
import { wallInstant, wallText } from '../../core/arming/zone.ts'
import { Evaluator, type Trigger } from '../../core/detections/index.ts'
import { isFrameKind, type Camera, type Detection, type Plan } from '../../core/formats/plan.ts'
import { shownTo } from '../../core/kinds/shownTo.ts'
import { PieceByPiece } from '../../core/lookBack/counting.ts'
import {
  LOOK_BACK_FPS,
  mergeRows,
  rowsWithin,
  staysWithin,
  tracksOf,
  type Stay
} from '../../core/lookBack/rows.ts'
import type { TargetClass } from '../../core/targets/classes.ts'
import { tracksFromRows } from '../../core/targets/tracks.ts'
import { simulateDay, type SimulatedVisit } from '../../simulation/days.ts'
import { readScene, readScript } from '../../simulation/script.ts'
import { writeWhole } from '../files.ts'
import { writeHour } from '../lookBack/hourFile.ts'
import { HOUR_MS, hourOf, hourPath } from '../lookBack/hours.ts'
import { paintPast } from './pastPictures.ts'
import type { Story } from './story.ts'

/** The demo site's last days: what its cameras have reported, and what their detections made of it. */

export const PAST_DAYS = 7
/** So many of them have pictures: painting takes most of the time. */
const PICTURED_DAYS = 2
const DAY_MS = 24 * HOUR_MS

export interface PastJob {
  story: Story
  /** Where what cameras report is kept. */
  folder: string
  plan: Pick<Plan, 'schedules' | 'timeZone' | 'position'>
  /** Each camera's scene and scripts, as in demo/scenes. */
  worlds: Readonly<Record<string, { scene: unknown; scripts: unknown[] }>>
  now: number
}

export interface PastTrigger {
  detection: string
  at: number
  trigger: Pick<Trigger, 'target' | 'direction' | 'cause' | 'severity'>
  cls: TargetClass | null
  /** The place of what happened in the habits of the camera; null: a contact. */
  habit: number | null
}

export interface CameraPast {
  camera: string
  triggers: PastTrigger[]
}

/** An instant of so many days ago, by the site's clock. */
export function daysAgo(now: number, days: number, clock: string, timeZone: string): number {
  const noon = wallInstant(`${wallText(now, timeZone).slice(0, 10)}T12:00`, timeZone)!
  return wallInstant(`${wallText(noon - days * DAY_MS, timeZone).slice(0, 10)}T${clock}`, timeZone)!
}

/** @returns what a camera had to tell; its hours are written then */
export async function simulatePast(job: PastJob, camera: Camera): Promise<CameraPast> {
  const { plan, now } = job
  const inputs = inputsOf(job)
  if (!job.worlds[camera.id]) return { camera: camera.id, triggers: [] }
  const rows = await writeDays(job, camera.id)
  const detections = camera.detections.filter((d) => d.enabled && !d.parked)
  const triggers = [
    ...ofTargets({ plan, camera, inputs, ...rows }, detections),
    ...detections.flatMap((d) => ofContacts(job, camera, d, inputs))
  ].filter(({ at }) => at < now)
  return { camera: camera.id, triggers: triggers.sort((a, b) => a.at - b.at) }
}

/** The panel as it was set and unset day by day, and the doors that were opened. */
function inputsOf({ story, plan, now }: PastJob): ArmInputs {
  const { panel, door } = story.inputs
  const at = (days: number, clock: string): number => daysAgo(now, days, clock, plan.timeZone)
  const days = Array.from({ length: PAST_DAYS + 2 }, (_, k) => PAST_DAYS + 1 - k)
  return {
    panel: days
      .flatMap((day) => [
        { at: at(day, panel.unset), set: false },
        { at: at(day, panel.set), set: true }
      ])
      .filter((change) => change.at < now),
    // Its contact is closed while the door is.
    door: [
      { at: at(PAST_DAYS + 1, '00:00'), set: true },
      ...door.opened.flatMap((opened) => {
        const from = at(opened.daysAgo, opened.at)
        return [
          { at: from, set: false },
          { at: from + 8000, set: true }
        ]
      })
    ].sort((a, b) => a.at - b.at)
  }
}

/** Writes the hours that are over, and gives what is in them. */
async function writeDays(
  { story, folder, plan, worlds, now }: PastJob,
  camera: string
): Promise<{ start: number; rows: ReturnType<typeof mergeRows>; habitOf: Map<number, number> }> {
  const { scene, scripts } = worlds[camera]!
  const place = Object.keys(story.habits).indexOf(camera)
  const play = { scene: readScene(scene), scripts: scripts.map(readScript) }
  const end = hourOf(now)
  const start = end - PAST_DAYS * DAY_MS
  const habitOf = new Map<number, number>()
  const lists = []
  const visits: SimulatedVisit[] = []
  let firstTarget = 1
  for (let days = PAST_DAYS; days >= 0; days--) {
    const day = simulateDay(play, story.habits[camera] ?? [], {
      date: wallText(daysAgo(now, days, '12:00', plan.timeZone), plan.timeZone).slice(0, 10),
      timeZone: plan.timeZone,
      until: end,
      seed: 1000 * (place + 1) + days,
      firstTarget
    })
    firstTarget = day.nextTarget
    for (const [target, habit] of day.habitOf) habitOf.set(target, habit)
    lists.push(day.rows)
    visits.push(...day.visits)
  }
  const { outage } = story
  const cut = daysAgo(now, outage.daysAgo, outage.from, plan.timeZone)
  const away: Stay = outage.camera === camera ? [cut, cut + outage.hours * HOUR_MS] : [0, 0]
  const all = mergeRows(lists)
  const rows = mergeRows([
    rowsWithin(all, start, Math.max(start, away[0])),
    rowsWithin(all, Math.max(start, away[1]), end)
  ])
  await mkdir(dirname(hourPath(folder, camera, start)), { recursive: true })
  for (let hour = start; hour < end; hour += HOUR_MS) {
    const heard = (
      [
        [hour, Math.min(hour + HOUR_MS, Math.max(hour, away[0]))],
        [Math.max(hour, away[1]), hour + HOUR_MS]
      ] as Stay[]
    ).filter(([from, to]) => to > from)
    await writeWhole(
      hourPath(folder, camera, hour),
      writeHour({ rows: rowsWithin(rows, hour, hour + HOUR_MS), heard })
    )
  }
  const pictured = end - PICTURED_DAYS * DAY_MS
  await paintPast(
    folder,
    camera,
    play,
    visits.filter(({ at }) => at >= pictured),
    staysWithin(
      [
        [start, away[0]],
        [Math.max(start, away[1]), end]
      ],
      pictured,
      end
    ),
    plan.timeZone
  )
  return { start, rows, habitOf }
}

/** What detections of targets have triggered; what looks at pictures has none: nothing was painted. */
function ofTargets(
  {
    plan,
    camera,
    inputs,
    start,
    rows,
    habitOf
  }: {
    plan: PastJob['plan']
    camera: Camera
    inputs: ArmInputs
  } & Awaited<ReturnType<typeof writeDays>>,
  detections: readonly Detection[]
): PastTrigger[] {
  const tracks = tracksOf(rows, start, LOOK_BACK_FPS)
  return detections
    .filter((d) => !isFrameKind(d) && shownTo(d.kind) !== 'faces')
    .flatMap((detection) =>
      new PieceByPiece({ plan, camera }, detection, start, LOOK_BACK_FPS, inputs)
        .push(tracks)
        .map(({ trigger, at, cls }) => ({
          detection: detection.id,
          at: Math.round(at),
          trigger: {
            target: trigger.target,
            ...(trigger.direction && { direction: trigger.direction })
          },
          cls,
          habit: habitOf.get(trigger.target!) ?? null
        }))
    )
}

/** Seconds around such a change that are looked at. */
const BEFORE_SECONDS = 2
const AROUND_SECONDS = 12

/** What a detection of a contact has triggered: it is looked at around each change to active. */
function ofContacts(
  { plan }: PastJob,
  camera: Camera,
  detection: Detection,
  inputs: ArmInputs
): PastTrigger[] {
  if (!('input' in detection)) return []
  const active = detection.normally === 'open'
  // Frames are counted up to the last one in which a target is.
  const last = tracksFromRows(
    [
      {
        frame: AROUND_SECONDS * LOOK_BACK_FPS,
        id: 1,
        x: 0,
        y: 0,
        w: 0.1,
        h: 0.1,
        cls: 'unknown',
        confidence: 1
      }
    ],
    LOOK_BACK_FPS
  )
  return (inputs[detection.input] ?? [])
    .filter(({ set }) => set === active)
    .flatMap(({ at: opened }) => {
      const start = opened - BEFORE_SECONDS * 1000
      return new Evaluator({
        plan,
        camera: { ...camera, detections: [detection] },
        fps: LOOK_BACK_FPS,
        start,
        inputs
      })
        .push(last)
        .map(({ time }) => ({
          detection: detection.id,
          at: Math.round(start + 1000 * time),
          trigger: {},
          cls: null,
          habit: null
        }))
    })
}
