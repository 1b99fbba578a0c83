import { readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { parentPort, workerData } from 'node:worker_threads'
import { RECORD } from '../../core/handover/manifest.ts'
import { RecordSchema } from '../../core/handover/record.ts'
import { saidOfError } from '../../core/errors.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { PAGES } from './files.ts'
import { pagesOf } from './pages/pages.ts'
import type { PagesJob } from './pagesThreads.ts'

/** The other end of pagesThreads.ts: one record, then it ends. */
const { folder, paper, signatures } = workerData as PagesJob
try {
  const record = parseWith(RecordSchema, JSON.parse(await readFile(join(folder, RECORD), 'utf8')))
  await writeFile(join(folder, PAGES), await pagesOf(record, folder, paper, signatures))
  parentPort!.postMessage({ done: true })
} catch (error) {
  process.stderr.write(`${(error as Error).stack ?? String(error)}\n`)
  parentPort!.postMessage({ why: saidOfError(error) })
}
