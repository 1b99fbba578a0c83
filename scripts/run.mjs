// Runs one of the project's TypeScript programs: node scripts/run.mjs FILE [arguments].
import { existsSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const [file, ...args] = process.argv.slice(2)
if (!existsSync(join(root, 'node_modules', 'tsx'))) {
  const { installPackages } = await import('./install.mjs')
  await installPackages({ quiet: true })
}
const { register } = await import('tsx/esm/api')
register()
process.argv = [process.argv[0], resolve(root, file), ...args]
await import(pathToFileURL(resolve(root, file)).href)
