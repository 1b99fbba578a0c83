// Runs one of the project's TypeScript programs: node scripts/run.mjs FILE [arguments].
import { existsSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { installPackages, root } from './install.mjs'

const [file, ...args] = process.argv.slice(2)
if (!existsSync(join(root, 'node_modules', 'esbuild'))) await installPackages({ quiet: true })
process.argv = [process.argv[0], resolve(root, file), ...args]
const { load } = await import('./typescript.mjs')
await load(resolve(root, file))
