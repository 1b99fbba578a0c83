import { readFileSync } from 'node:fs'
import { evaluate, explain, type Setting } from '../detections/index.ts'
import { readArmInputs, readExpected } from '../formats/evidence.ts'
import { score } from '../proving/score.ts'
import { InputError } from '../errors.ts'
import { triggerLine } from '../formats/triggers.ts'
import { readMot, type PictureSize } from '../formats/mot.ts'
import { readPlan } from '../formats/plan.ts'
import type { Tracks } from '../targets/tracks.ts'
import { UsageError, readOptions, runCommand } from './options.ts'

const usage = `usage: npm run evaluate -- PLAN --camera ID --tracks FILE --fps N --size WxH --start ISO
         [--inputs FILE] [--trace DETECTION:TARGET | --expected FILE] [--silent]
Prints the triggers of the camera's detections as JSON lines. With --silent nothing else is on standard output
(npm's own heading is left out with npm run --silent).
  --inputs FILE             JSON of arm inputs: {"panel": [{"at": "2026-11-24T18:00:00Z", "set": true}]}
  --trace DETECTION:TARGET  prints why, or why not, instead: the gate ladder and each gate over time
  --expected FILE           prints the score instead; FILE has JSON lines {"detection", "time", "direction", "within", "early"}`

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

function printTrace(setting: Setting, tracks: Tracks, which: string): void {
  const m = /^([A-Za-z0-9_-]+):(\d+)$/.exec(which)
  if (!m) throw new UsageError(`--trace is "${which}"; must be DETECTION:TARGET, such as edge:3`)
  const known = setting.camera.detections
  const detection = known.find((d) => d.id === m[1])
  if (!detection) throw new InputError('--trace', `"${m[1]}" is no detection of this camera; it has ${known.map((d) => d.id).join(', ') || 'none'}`)
  if (!detection.enabled) throw new InputError('--trace', `detection "${m[1]}" is switched off; it looks at nothing`)
  const trace = explain(setting, tracks, m[1], Number(m[2]))
  if (!trace) throw new InputError('--trace', `target ${m[2]} is not in the tracks`)
  process.stdout.write(`${JSON.stringify(trace)}\n`)
}

await runCommand((args) => {
  const text = { type: 'string' } as const
  const { values, positionals } = readOptions(
    args,
    { camera: text, tracks: text, fps: text, size: text, start: text, inputs: text, trace: text, expected: text, silent: { type: 'boolean' }, help: { type: 'boolean' } },
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
  if (values.trace !== undefined && values.expected !== undefined) throw new UsageError(`--trace and --expected do not go together\n${usage}`)
  const inputs = typeof values.inputs === 'string' ? readArmInputs(readText(values.inputs, 'inputs')) : {}
  const setting: Setting = { plan, camera, fps, start, inputs }
  if (typeof values.trace === 'string') return printTrace(setting, tracks, values.trace)
  const triggers = evaluate(setting, tracks)
  if (typeof values.expected === 'string') {
    process.stdout.write(`${JSON.stringify(score(readExpected(readText(values.expected, 'expected'), plan, camera.id), triggers))}\n`)
    return
  }
  for (const trigger of triggers) process.stdout.write(`${triggerLine(trigger)}\n`)
  if (!values.silent) process.stderr.write(`${triggers.length} ${triggers.length === 1 ? 'trigger' : 'triggers'}\n`)
})
