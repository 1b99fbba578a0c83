import { UsageError, readOptions, runCommand } from '../core/cli/options.ts'
import { render } from '../simulation/render.ts'
import { DEMO_CAMERAS, demoPlay } from './scenes.ts'

const usage = `usage: npm run render -- [CAMERA/SCRIPT] --out FILE.mp4
Paints a script of the demo site and encodes it; slipway/morning if none is named. Cameras: ${DEMO_CAMERAS.join(', ')}`

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
  if (typeof values.out !== 'string') throw new UsageError(`--out is missing\n${usage}`)
  if (positionals.length > 1)
    throw new UsageError(`give one script, not ${positionals.length}\n${usage}`)
  const [camera, script = 'morning'] = (positionals[0] ?? 'slipway/morning').split('/') as [
    string,
    string
  ]
  await render(demoPlay(camera, script), values.out, { preset: 'veryslow' })
})
