import type { Detection } from '../formats/plan.ts'
import { readMot } from '../formats/mot.ts'
import { readPlan } from '../formats/plan.ts'
import { readMarks, type Mark } from '../marks/marks.ts'
import { said } from '../messages/said.ts'
import type { Place, Stretch } from '../tuning/stretches.ts'
import { cameraOf, detectionOf, readFps, readSize, readStart, readText } from './inputs.ts'
import { UsageError, readOptions } from './options.ts'

export interface TuningInputs {
  place: Place
  detection: Detection
  stretches: Stretch[]
  marks: Mark[]
  /** Options of the command's own. */
  own: Record<string, string | undefined>
}

const text = { type: 'string' } as const
const many = { type: 'string', multiple: true } as const

/**
 * What `sweep` and `recommend` read alike: a plan, a detection of a camera, and stretches of tracks with their marks.
 *
 * @param own names of options that the command has besides
 * @returns null when only help was asked for
 * @throws UsageError or InputError
 */
export function readTuning(
  args: string[],
  usage: string,
  own: readonly string[]
): TuningInputs | null {
  const { values, positionals } = readOptions(
    args,
    {
      camera: text,
      detection: text,
      tracks: many,
      start: many,
      fps: text,
      size: text,
      marks: text,
      silent: { type: 'boolean' },
      help: { type: 'boolean' },
      ...Object.fromEntries(own.map((name) => [name, text]))
    },
    usage
  )
  if (values.help) {
    process.stdout.write(`${usage}\n`)
    return null
  }
  if (positionals.length !== 1)
    throw new UsageError(said('cli.giveOnePlanNotN', positionals.length, usage))
  const need = (name: string): string => {
    const value = values[name]
    if (typeof value !== 'string') throw new UsageError(said('cli.isMissingN', name, usage))
    return value
  }
  const list = (name: string): string[] => {
    const value = values[name]
    if (!Array.isArray(value)) throw new UsageError(said('cli.isMissingN', name, usage))
    return value
  }
  const [files, starts] = [list('tracks'), list('start')]
  if (files.length !== starts.length)
    throw new UsageError(said('cli.startForEachTracks', files.length, starts.length))
  const [fps, size] = [readFps(need('fps')), readSize(need('size'))]
  const plan = readPlan(readText(positionals[0]!, 'plan'))
  const camera = cameraOf(plan, need('camera'))
  const detection = detectionOf(camera, need('detection'))
  const marks =
    typeof values.marks === 'string' ? readMarks(readText(values.marks, 'marks'), files.length) : []
  return {
    place: {
      plan,
      camera: { ignore: camera.ignore, ...(camera.scene && { scene: camera.scene }) }
    },
    detection,
    marks,
    stretches: files.map((file, i) => ({
      tracks: readMot(readText(file, 'tracks'), fps, size),
      start: readStart(starts[i]!)
    })),
    own: Object.fromEntries(
      own.map((name) => [name, typeof values[name] === 'string' ? values[name] : undefined])
    )
  }
}
