import { readFileSync } from 'node:fs'
import { evaluate } from '../detections/index.ts'
import { InputError } from '../errors.ts'
import { triggerLine } from '../formats/triggers.ts'
import { readMot, type PictureSize } from '../formats/mot.ts'
import { readPlan } from '../formats/plan.ts'
import { UsageError, readOptions, runCommand } from './options.ts'

const usage = `usage: npm run evaluate -- PLAN --camera ID --tracks FILE --fps N --size WxH --start ISO [--silent]
Prints the triggers of the camera's detections as JSON lines. With --silent nothing else is on standard output
(npm's own heading is left out with npm run --silent).`

const readText = (file: string, what: string): string => {
  try {
    return readFileSync(file, 'utf8')
  } catch (error) {
    throw new InputError(what, `cannot read ${file} (${(error as NodeJS.ErrnoException).code})`)
  }
}

const readFps = (text: string): number => {
  const fps = Number(text)
  if (!(fps > 0 && fps <= 1000)) throw new UsageError(`--fps is "${text}"; must be a number above 0, at most 1000`)
  return fps
}

const readSize = (text: string): PictureSize => {
  const m = /^(\d{1,5})x(\d{1,5})$/.exec(text)
  if (!m || +m[1] < 1 || +m[2] < 1) throw new UsageError(`--size is "${text}"; must be WIDTHxHEIGHT in pixels, such as 768x576`)
  return { width: +m[1], height: +m[2] }
}

const readStart = (text: string): number => {
  const instant = /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:\d\d)$/.test(text) ? Date.parse(text) : NaN
  if (Number.isNaN(instant)) throw new UsageError(`--start is "${text}"; must be an instant with its offset from UTC, such as 2026-11-24T18:30:00Z`)
  return instant
}

await runCommand((args) => {
  const text = { type: 'string' } as const
  const { values, positionals } = readOptions(
    args,
    { camera: text, tracks: text, fps: text, size: text, start: text, silent: { type: 'boolean' }, help: { type: 'boolean' } },
    usage
  )
  if (values.help) {
    process.stdout.write(`${usage}\n`)
    return
  }
  if (positionals.length !== 1) throw new UsageError(`give one plan, not ${positionals.length}\n${usage}`)
  const need = (name: string): string => {
    if (typeof values[name] !== 'string') throw new UsageError(`--${name} is missing\n${usage}`)
    return values[name]
  }
  const [cameraId, file, fps, size, start] = [need('camera'), need('tracks'), readFps(need('fps')), readSize(need('size')), readStart(need('start'))]
  const plan = readPlan(readText(positionals[0], 'plan'))
  const camera = plan.cameras.find((c) => c.id === cameraId)
  if (!camera) throw new InputError('--camera', `"${cameraId}" is not in the plan; it has ${plan.cameras.map((c) => c.id).join(', ') || 'none'}`)
  const tracks = readMot(readText(file, 'tracks'), fps, size)
  const triggers = evaluate({ plan, camera, fps, start }, tracks)
  for (const trigger of triggers) process.stdout.write(`${triggerLine(trigger)}\n`)
  if (!values.silent) process.stderr.write(`${triggers.length} ${triggers.length === 1 ? 'trigger' : 'triggers'}\n`)
})
