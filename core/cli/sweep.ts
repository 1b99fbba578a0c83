import { InputError } from '../errors.ts'
import { usage as usages } from '../messages/en/usage.ts'
import { said } from '../messages/said.ts'
import { scalesOf } from '../tuning/scales.ts'
import { sweep, sweepValues } from '../tuning/sweep.ts'
import { UsageError, runCommand } from './options.ts'
import { readTuning } from './tuningInputs.ts'

const readValues = (text: string): number[] => {
  const values = text.split(',').map((part) => (part.trim() === '' ? NaN : Number(part)))
  if (!values.every(Number.isFinite)) throw new UsageError(said('cli.valuesAreMust', text))
  return [...new Set(values)].sort((a, b) => a - b)
}

await runCommand((args) => {
  const inputs = readTuning(args, usages.sweep, ['setting', 'values'])
  if (!inputs) return
  const { place, detection, stretches, marks, own } = inputs
  if (own.setting === undefined)
    throw new UsageError(said('cli.isMissingN', 'setting', usages.sweep))
  const scales = scalesOf(detection, place.camera.scene !== undefined)
  const scale = scales.find(({ name }) => name === own.setting)
  if (!scale)
    throw new InputError(
      '--setting',
      said(
        'cli.isNoSetting',
        own.setting,
        scales.map(({ name }) => name)
      )
    )
  const values = own.values === undefined ? sweepValues(scale, detection) : readValues(own.values)
  for (const swept of sweep(place, detection, scale, values, stretches, marks))
    process.stdout.write(`${JSON.stringify(swept)}\n`)
})
