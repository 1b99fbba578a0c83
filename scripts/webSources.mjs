// What the interface is built of, and whether what is built is still of that.
import { createHash } from 'node:crypto'
import { readFileSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './install.mjs'

export const built = join(root, 'dist/web')
/** In the folder that is built: the digest of what it was built of. */
export const STAMP = '.sources'

/** A digest of all files that the built interface depends on. */
export function sourcesDigest() {
  const hash = createHash('sha256')
  const walk = (path) => {
    if (statSync(path).isDirectory())
      for (const name of readdirSync(path).sort()) walk(join(path, name))
    else hash.update(path).update(readFileSync(path))
  }
  for (const name of ['web', 'core', 'vite.config.ts', 'package-lock.json']) walk(join(root, name))
  return hash.digest('hex')
}

/** @param digest of what it should be built of */
export function isBuilt(digest) {
  try {
    return readFileSync(join(built, STAMP), 'utf8') === digest
  } catch {
    return false
  }
}
