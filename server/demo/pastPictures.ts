import type { Canvas } from '@napi-rs/canvas'
import { wallText } from '../../core/arming/zone.ts'
import { TEN_MINUTES, type Stay } from '../../core/lookBack/rows.ts'
import type { SimulatedVisit } from '../../simulation/days.ts'
import { makeNodeCanvas } from '../../simulation/nodeCanvas.ts'
import { Painter } from '../../simulation/paint/painter.ts'
import type { Scene, Script } from '../../simulation/script.ts'
import { PictureWriter, type SmallPicture } from '../lookBack/pictureFile.ts'
import { madeSmall } from '../watch/smallPicture.ts'

/** Hours of the site's clock in which the demo's cameras see by night. */
const NIGHT = { from: 19, to: 7 }

interface World {
  scene: Scene
  scripts: readonly Script[]
}

function paint(scene: Scene, script: Script, seconds: number): Promise<Buffer> {
  const painter = new Painter({ scene, script }, makeNodeCanvas)
  painter.paint(seconds)
  return madeSmall(painter.canvas as Canvas)
}

/** The moments at which the targets of a visit are largest. */
function largest({ rows }: SimulatedVisit): number[] {
  const best = new Map<number, { at: number; area: number }>()
  for (let i = 0; i < rows.length; i++) {
    const area = rows.w[i]! * rows.h[i]!
    const of = best.get(rows.target[i]!)
    if (!of || area > of.area) best.set(rows.target[i]!, { at: rows.at[i]!, area })
  }
  return [...new Set([...best.values()].map(({ at }) => Math.round(at)))]
}

/**
 * The small pictures of a camera's past, as they would have been taken: of each visit, and of ten minutes without any.
 *
 * @param heard when the camera was listened to
 */
export async function paintPast(
  folder: string,
  camera: string,
  { scene, scripts }: World,
  visits: readonly SimulatedVisit[],
  heard: readonly Stay[],
  timeZone: string
): Promise<void> {
  const isHeard = (at: number): boolean => heard.some(([from, to]) => at >= from && at < to)
  const pictures: SmallPicture[] = []
  for (const visit of visits)
    for (const at of largest(visit))
      if (isHeard(at))
        pictures.push({ at, jpeg: await paint(scene, visit.script, (at - visit.at) / 1000) })
  const tens = new Set(pictures.map(({ at }) => Math.floor(at / TEN_MINUTES)))
  // Nothing moves in them: by day and by night they are all the same.
  const empty = new Map<Script, Buffer>()
  for (const [from, to] of heard)
    for (let ten = Math.ceil(from / TEN_MINUTES); (ten + 1) * TEN_MINUTES <= to; ten++) {
      if (tens.has(ten)) continue
      const at = ten * TEN_MINUTES
      const script = scriptAt(scripts, at, timeZone)
      if (!script) continue
      if (!empty.has(script))
        empty.set(script, await paint(scene, { ...script, actors: [], faults: [] }, 0))
      pictures.push({ at, jpeg: empty.get(script)! })
    }
  const writer = new PictureWriter(folder)
  pictures.sort((a, b) => a.at - b.at)
  for (const picture of pictures) await writer.add(camera, picture)
}

/** A script of the light that there is at an instant. */
function scriptAt(scripts: readonly Script[], at: number, timeZone: string): Script | undefined {
  const hour = Number(wallText(at, timeZone).slice(11, 13))
  const isNight = hour >= NIGHT.from || hour < NIGHT.to
  return scripts.find(({ light }) => (light === 'day') !== isNight) ?? scripts[0]
}
