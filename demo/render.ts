import { said } from '../core/messages/said.ts'
import { usage as usages } from '../core/messages/en/usage.ts'
import { UsageError, readOptions, runCommand } from '../core/cli/options.ts'
import { render } from '../simulation/render.ts'
import { DEMO_CAMERAS, demoPlay } from './scenes.ts'

const usage = usages.render(DEMO_CAMERAS.join(', '))

await runCommand(async (args) => {
  const { values, positionals } = readOptions(
    args,
    { out: { type: 'string' }, help: { type: 'boolean' } },
    usage
  )
  if (values.help) {
    process.stdout.write(`${usage}\n`)
    return
  }
  if (typeof values.out !== 'string') throw new UsageError(said('clips.outIsMissingN', usage))
  if (positionals.length > 1)
    throw new UsageError(said('cli.giveOneScript', positionals.length, usage))
  const [camera, script = 'morning'] = (positionals[0] ?? 'slipway/morning').split('/') as [
    string,
    string
  ]
  await render(demoPlay(camera, script), values.out, { preset: 'veryslow' })
})
