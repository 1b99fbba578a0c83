// One real MariaDB for all server tests of a run, in a folder of its own.
import { mkdirSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { load } from '../../scripts/typescript.mjs'

export default async () => {
  // A run that is stopped ends like any other, so that its database ends too.
  for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP']) process.once(signal, () => process.exit(1))
  const { startMariaDb } = await load(new URL('../launch/mariadb.ts', import.meta.url))
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-test-'))
  globalThis.wardopticTest = { folder, mariadb: await startMariaDb(folder) }
  process.env.WARDOPTIC_TEST_ANALYSES = join(folder, 'analyses')
  mkdirSync(process.env.WARDOPTIC_TEST_ANALYSES)
  process.env.WARDOPTIC_TEST_DATABASE = JSON.stringify(globalThis.wardopticTest.mariadb.address)
}
