import { wordsOf } from '../messages/words.ts'
import { usage as usages } from '../messages/en/usage.ts'
import { said } from '../messages/said.ts'
import { readFileSync } from 'node:fs'
import { evaluate, explain, traceFrames, type Setting } from '../detections/index.ts'
import { readArmInputs, readExpected } from '../formats/evidence.ts'
import { score } from '../proving/score.ts'
import { InputError } from '../errors.ts'
import { triggerLine } from '../formats/triggers.ts'
import { readMot } from '../formats/mot.ts'
import { readFaces } from '../formats/faces.ts'
import { isFrameKind, readPlan } from '../formats/plan.ts'
import { readMeasures, type Measures } from '../measures/measures.ts'
import type { Tracks } from '../targets/tracks.ts'
import { cameraOf, readFps, readSize, readStart, readText } from './inputs.ts'
import { UsageError, readOptions, runCommand } from './options.ts'

const readMeasuresFile = (file: string, fps: number): Measures => {
  let bytes: Uint8Array
  try {
    bytes = readFileSync(file)
  } catch (error) {
    throw new InputError(
      'measures',
      said('cli.cannotRead', file, (error as NodeJS.ErrnoException).code)
    )
  }
  const measures = readMeasures(bytes)
  if (Math.abs(measures.fps - fps) > 1e-6)
    throw new InputError('measures', said('cli.areOfFramesSAndFps', measures.fps, fps))
  return measures
}

/** @throws InputError when the clip was measured on another grid than a detection has */
function checkGrids({ camera: { detections } }: Setting, measures: Measures | null): void {
  for (const d of detections)
    if (
      measures &&
      d.enabled &&
      'cells' in d &&
      (d.cells.length !== measures.rows || d.cells[0]!.length !== measures.columns)
    )
      throw new InputError(
        'measures',
        said(
          'cli.areOfCellsAnd',
          measures.columns,
          measures.rows,
          d.id,
          d.cells[0]!.length,
          d.cells.length
        )
      )
}

function printTrace(
  setting: Setting,
  tracks: Tracks,
  measures: Measures | null,
  which: string
): void {
  const m = /^([A-Za-z0-9_-]+)(?::(\d+))?$/.exec(which)
  if (!m) throw new UsageError(said('cli.traceIsMust', which))
  const known = setting.camera.detections
  const detection = known.find((d) => d.id === m[1])
  if (!detection)
    throw new InputError(
      '--trace',
      said(
        'cli.isNoDetection',
        m[1],
        known.map((d) => d.id)
      )
    )
  if (!detection.enabled) throw new InputError('--trace', said('cli.detectionIsSwitched', m[1]))
  if (isFrameKind(detection)) {
    const trace = traceFrames(setting, tracks, measures, m[1]!)
    if (!trace) throw new InputError('--trace', said('cli.looksAtWhole', m[1]))
    process.stdout.write(
      `${JSON.stringify({ ...trace, curves: trace.curves.map((curve) => ({ ...curve, values: [...curve.values] })) })}\n`
    )
    return
  }
  if (m[2] === undefined) throw new UsageError(said('cli.traceIsLooks', which, m[1]))
  const trace = explain(setting, tracks, m[1]!, Number(m[2]))
  if (!trace) throw new InputError('--trace', said('cli.targetIsNotInThe', m[2]))
  process.stdout.write(`${JSON.stringify(trace)}\n`)
}

await runCommand((args) => {
  const text = { type: 'string' } as const
  const { values, positionals } = readOptions(
    args,
    {
      camera: text,
      tracks: text,
      fps: text,
      size: text,
      start: text,
      inputs: text,
      measures: text,
      faces: text,
      trace: text,
      expected: text,
      silent: { type: 'boolean' },
      help: { type: 'boolean' }
    },
    usages.evaluate
  )
  if (values.help) {
    process.stdout.write(`${usages.evaluate}\n`)
    return
  }
  if (positionals.length !== 1)
    throw new UsageError(said('cli.giveOnePlanNotN', positionals.length, usages.evaluate))
  const need = (name: string): string => {
    if (typeof values[name] !== 'string')
      throw new UsageError(said('cli.isMissingN', name, usages.evaluate))
    return values[name]
  }
  const [cameraId, file, fps, size, start] = [
    need('camera'),
    need('tracks'),
    readFps(need('fps')),
    readSize(need('size')),
    readStart(need('start'))
  ]
  const plan = readPlan(readText(positionals[0]!, 'plan'))
  const camera = cameraOf(plan, cameraId)
  const faces =
    typeof values.faces === 'string' ? readFaces(readText(values.faces, 'faces'), size) : undefined
  const tracks: Tracks = {
    ...readMot(readText(file, 'tracks'), fps, size),
    ...(faces && { faces })
  }
  const measures =
    typeof values.measures === 'string' ? readMeasuresFile(values.measures, fps) : null
  if (values.trace !== undefined && values.expected !== undefined)
    throw new UsageError(said('cli.traceAndExpectedDoNot', usages.evaluate))
  const inputs =
    typeof values.inputs === 'string' ? readArmInputs(readText(values.inputs, 'inputs')) : {}
  const setting: Setting = { plan, camera, fps, start, inputs }
  if (typeof values.trace === 'string') return printTrace(setting, tracks, measures, values.trace)
  checkGrids(setting, measures)
  const triggers = evaluate(setting, tracks, measures)
  if (typeof values.expected === 'string') {
    process.stdout.write(
      `${JSON.stringify(score(readExpected(readText(values.expected, 'expected'), plan, camera.id), triggers))}\n`
    )
    return
  }
  for (const trigger of triggers) process.stdout.write(`${triggerLine(trigger)}\n`)
  const blind = measures
    ? []
    : camera.detections.filter((d) => d.enabled && isFrameKind(d) && d.kind !== 'contact')
  if (!values.silent && blind.length)
    process.stderr.write(wordsOf(said('cli.cannotTrigger', blind.map((d) => d.id).join(', '))))
  if (!values.silent) process.stderr.write(wordsOf(said('cli.triggers', triggers.length)))
})
