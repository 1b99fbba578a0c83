// Builds the interface when its sources have changed. A process of its own: what building needs of memory ends with it.
import { readFileSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { setup } from '../core/messages/en/setup.mjs'
import { root } from './install.mjs'
import { STAMP, built, isBuilt, sourcesDigest } from './webSources.mjs'

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
  const digest = sourcesDigest()
  if (isBuilt(digest)) return
  console.error(setup.building)
  // Whatever starts this (a test runner says "test"), what people use is built for use.
  process.env.NODE_ENV = 'production'
  const { build } = await import('vite')
  // Put in place whole: two that are started at once do not mix their files.
  const beside = join(root, `dist/web-${process.pid}`)
  const before = `${beside}-before`
  try {
    await build({
      configFile: join(root, 'vite.config.ts'),
      logLevel: 'warn',
      build: { outDir: beside }
    })
    compress(beside)
    writeFileSync(join(beside, STAMP), digest)
    while (!isBuilt(digest)) {
      try {
        renameSync(built, before)
      } catch (error) {
        if (error.code !== 'ENOENT') throw error
      }
      rmSync(before, { recursive: true, force: true })
      try {
        renameSync(beside, built)
      } catch (error) {
        // The other one was quicker by a moment.
        if (!['ENOTEMPTY', 'EEXIST'].includes(error.code)) throw error
      }
    }
  } finally {
    rmSync(beside, { recursive: true, force: true })
  }
}

await buildWeb()
