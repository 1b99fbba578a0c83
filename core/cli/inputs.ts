import { readFileSync } from 'node:fs'
import { InputError } from '../errors.ts'
import type { PictureSize } from '../formats/mot.ts'
import type { Camera, Detection, Plan } from '../formats/plan.ts'
import { said, type Said } from '../messages/said.ts'
import { UsageError } from './options.ts'

/** What the commands take alike. */

/** @throws InputError when the file cannot be read */
export const readText = (file: string, what: string): string => {
  try {
    return readFileSync(file, 'utf8')
  } catch (error) {
    throw new InputError(what, said('cli.cannotRead', file, (error as NodeJS.ErrnoException).code))
  }
}

/** @throws UsageError for what is no number of frames per second */
export const readFps = (text: string): number => {
  const fps = Number(text)
  if (!(fps > 0 && fps <= 1000)) throw new UsageError(said('cli.fpsIsMust', text))
  return fps
}

/** @throws UsageError for what is no size in pixels */
export const readSize = (text: string): PictureSize => {
  const m = /^(\d{1,5})x(\d{1,5})$/.exec(text)
  if (!m || +m[1]! < 1 || +m[2]! < 1) throw new UsageError(said('cli.sizeIsMust', text))
  return { width: +m[1]!, height: +m[2]! }
}

const INSTANT = /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:\d\d)$/

/** An instant, ms of UTC. @throws UsageError for what is none, or has no offset from UTC */
export const readInstant = (option: string, text: string): number => {
  const instant = INSTANT.test(text) ? Date.parse(text) : NaN
  if (Number.isNaN(instant)) throw new UsageError(said('cli.instantIsMust', option, text))
  return instant
}
export const readStart = (text: string): number => readInstant('start', text)

/** @throws InputError naming the cameras that there are */
export const cameraOf = (plan: Plan, id: string): Camera =>
  named('--camera', plan.cameras, id, (ids) => said('cli.isNotIn', id, ids))

/** @throws InputError naming the detections that there are */
export const detectionOf = (camera: Camera, id: string): Detection =>
  named('--detection', camera.detections, id, (ids) => said('cli.isNoDetection', id, ids))

function named<T extends { id: string }>(
  option: string,
  list: readonly T[],
  id: string,
  why: (ids: string[]) => Said
): T {
  const found = list.find((one) => one.id === id)
  if (!found) throw new InputError(option, why(list.map((one) => one.id)))
  return found
}
