// npm start: installs what is missing, builds the interface when its sources have changed, and starts everything.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { join } from 'node:path'
import { setup } from '../core/messages/en/setup.mjs'
import { installDebian, installPackages, root } from './install.mjs'
import { isBuilt, sourcesDigest } from './webSources.mjs'

// `npm start` has the C library keep its memory in two pools, and give back what lies free at their end (mallopt(3)): what
// a first start frees would else never be given back. What this process starts may work as it likes.
delete process.env.MALLOC_ARENA_MAX
delete process.env.MALLOC_TRIM_THRESHOLD_

async function buildWeb() {
  if (isBuilt(sourcesDigest())) return
  const build = spawn(process.execPath, [join(root, 'scripts/buildWeb.mjs')], {
    stdio: ['ignore', 2, 2]
  })
  const [status] = await once(build, 'exit')
  if (status !== 0) throw new Error(setup.notBuilt)
}

let begun = null
try {
  installDebian(['mariadb-server', 'ffmpeg'])
  await installPackages()
  const { load } = await import('./typescript.mjs')
  const { begin } = await load(join(root, 'server/launch/begin.ts'))
  begun = await begin(process.argv.slice(2))
  if (begun) {
    await buildWeb()
    const { launch } = await load(join(root, 'server/launch/launch.ts'))
    await launch(begun)
  }
} catch (error) {
  await begun?.end()
  // Whoever has ended it knows why.
  if (begun?.isAsked()) process.exit(0)
  console.error(setup.error(error.message))
  process.exit(1)
}
