// Loads a TypeScript program in Node. It is bundled with what it imports of this project, and the
// bundle is kept until one of its sources changes: a start then takes a third of what it takes to
// transform and resolve some hundred modules one by one.
import { createHash } from 'node:crypto'
import {
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync
} from 'node:fs'
import { basename, isAbsolute, join, relative, resolve } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'

const digest = (text) => createHash('sha256').update(text).digest('hex').slice(0, 16)
const root = fileURLToPath(new URL('..', import.meta.url))
// Checkouts may share their packages; each has its own bundles.
const folder = join(root, 'node_modules/.cache/wardoptic/programs', digest(root))

/** What tells that a source is still as it was. */
const stamp = (path) => {
  const { mtimeMs, size } = statSync(path)
  return `${mtimeMs} ${size}`
}

/** The bundle made last, if no source of it has changed. */
function kept(name) {
  try {
    const { bundle, sources } = JSON.parse(readFileSync(join(folder, `${name}.json`), 'utf8'))
    statSync(bundle)
    return sources.every(([path, then]) => stamp(path) === then) ? bundle : null
  } catch {
    return null
  }
}

/** A module knows where its source stands, also when it is part of a bundle. */
const ownAddress = {
  name: 'own-address',
  load(path) {
    if (!/\.m?ts$/.test(path)) return null
    const text = readFileSync(path, 'utf8')
    return text.includes('import.meta.url')
      ? {
          code: text.replaceAll('import.meta.url', JSON.stringify(pathToFileURL(path).href)),
          moduleType: 'ts'
        }
      : null
  }
}

/** Of the bundles of one program, those that running processes may still be reading stay. */
function clearAway(name) {
  // Another process may have cleared one away since.
  const madeAt = (path) => statSync(path, { throwIfNoEntry: false })?.mtimeMs ?? 0
  const old = readdirSync(folder)
    .filter((file) => file.startsWith(`${name}-`) && file.endsWith('.mjs'))
    .map((file) => join(folder, file))
    .sort((a, b) => madeAt(b) - madeAt(a))
  for (const path of old.slice(3)) {
    rmSync(path, { force: true })
    rmSync(`${path}.map`, { force: true })
  }
}

async function bundled(file, name) {
  const { rolldown } = await import('rolldown')
  const plan = await rolldown({
    input: file,
    cwd: root,
    platform: 'node',
    // What is not of this project is imported as it is.
    external: (id) => !id.startsWith('.') && !isAbsolute(id),
    treeshake: false,
    plugins: [ownAddress],
    logLevel: 'silent'
  })
  const { output } = await plan.generate({
    file: join(folder, `${name}.mjs`),
    format: 'esm',
    sourcemap: 'hidden',
    codeSplitting: false
  })
  await plan.close()
  const [{ code, map, moduleIds }] = output
  const bundle = join(folder, `${name}-${digest(code)}.mjs`)
  mkdirSync(folder, { recursive: true })
  // Several processes may do this at once: each file appears whole.
  const write = (path, content) => {
    const part = `${path}.${process.pid}.${Math.random().toString(36).slice(2)}`
    writeFileSync(part, content)
    renameSync(part, path)
  }
  write(`${bundle}.map`, JSON.stringify(map))
  write(bundle, `${code}\n//# sourceMappingURL=${basename(bundle)}.map\n`)
  // How it is bundled counts as a source as well, and so does the version of what bundles.
  const sources = [
    fileURLToPath(import.meta.url),
    join(root, 'package-lock.json'),
    ...moduleIds.filter((path) => isAbsolute(path))
  ]
  write(
    join(folder, `${name}.json`),
    JSON.stringify({ bundle, sources: sources.map((source) => [source, stamp(source)]) })
  )
  clearAway(name)
  return bundle
}

/**
 * Imports a TypeScript file and what it imports.
 *
 * @param file path or file URL
 * @returns its exports
 * @throws what the file throws, or what of it cannot be read
 */
export async function load(file) {
  const path = file instanceof URL ? fileURLToPath(file) : resolve(file)
  const name = relative(root, path).replace(/[^\w.-]+/g, '_')
  process.setSourceMapsEnabled(true)
  return import(pathToFileURL(kept(name) ?? (await bundled(path, name))).href)
}
