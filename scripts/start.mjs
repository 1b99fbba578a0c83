// npm start: installs what is missing, builds the interface when its sources have changed, and starts everything.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { installDebian, installPackages, root } from './install.mjs'

try {
  installDebian(['mariadb-server', 'ffmpeg'])
  await installPackages()
  const { status } = spawnSync(process.execPath, [join(root, 'scripts/buildWeb.mjs')], {
    stdio: ['ignore', 2, 2]
  })
  if (status !== 0) throw new Error('the interface cannot be built; the reason stands above')
  const { register } = await import('tsx/esm/api')
  register()
  const { launch } = await import('../server/launch/launch.ts')
  await launch(process.argv.slice(2))
} catch (error) {
  console.error(`error: ${error.message}`)
  process.exit(1)
}
