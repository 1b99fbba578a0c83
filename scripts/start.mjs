// npm start: installs what is missing, builds the interface when its sources have changed, and starts everything.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { setup } from '../core/messages/en/setup.mjs'
import { installDebian, installPackages, root } from './install.mjs'

// `npm start` has the C library keep its memory in two pools, and give back what lies free at their end (mallopt(3)): what
// a first start frees would else never be given back. What this process starts may work as it likes.
delete process.env.MALLOC_ARENA_MAX
delete process.env.MALLOC_TRIM_THRESHOLD_

try {
  installDebian(['mariadb-server', 'ffmpeg'])
  await installPackages()
  const { status } = spawnSync(process.execPath, [join(root, 'scripts/buildWeb.mjs')], {
    stdio: ['ignore', 2, 2]
  })
  if (status !== 0) throw new Error(setup.notBuilt)
  const { load } = await import('./typescript.mjs')
  const { launch } = await load(join(root, 'server/launch/launch.ts'))
  await launch(process.argv.slice(2))
} catch (error) {
  console.error(setup.error(error.message))
  process.exit(1)
}
