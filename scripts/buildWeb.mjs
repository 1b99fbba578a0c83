// Builds the interface when its sources have changed. A process of its own: what building needs of memory ends with it.
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { setup } from '../core/messages/en/setup.mjs'
import { root } from './install.mjs'

/** A digest of all files that the built interface depends on. */
function sourcesDigest() {
  const hash = createHash('sha256')
  const walk = (path) => {
    if (statSync(path).isDirectory())
      for (const name of readdirSync(path).sort()) walk(join(path, name))
    else hash.update(path).update(readFileSync(path))
  }
  for (const name of ['web', 'core', 'vite.config.ts', 'package-lock.json']) walk(join(root, name))
  return hash.digest('hex')
}

/** Beside each file of text its compressed forms, which the server sends to whoever takes them. */
function compress(folder) {
  for (const name of readdirSync(folder, { recursive: true })) {
    const path = join(folder, name)
    if (!/\.(js|css|html|svg)$/.test(name)) continue
    const content = readFileSync(path)
    writeFileSync(`${path}.br`, brotliCompressSync(content))
    writeFileSync(`${path}.gz`, gzipSync(content, { level: 9 }))
  }
}

async function buildWeb() {
  const stamp = join(root, 'dist/web/.sources')
  const digest = sourcesDigest()
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) return
  console.error(setup.building)
  // Whatever starts this (a test runner says "test"), what people use is built for use.
  process.env.NODE_ENV = 'production'
  const { build } = await import('vite')
  await build({ configFile: join(root, 'vite.config.ts'), logLevel: 'warn' })
  compress(join(root, 'dist/web'))
  writeFileSync(stamp, digest)
}

await buildWeb()
