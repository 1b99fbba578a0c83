import { Worker } from 'node:worker_threads'
import type { Signature } from '../../core/handover/record.ts'
import type { Paper } from '../../core/handover/views.ts'
import { Failure } from '../../core/errors.ts'
import { said, type Said } from '../../core/messages/said.ts'

export interface PagesJob {
  /** Of the record. */
  folder: string
  paper: Paper
  signatures: readonly Signature[]
}

/** Writes the pages of a record in a thread of their own: pictures and fonts take seconds. @throws Failure */
export function writePages(job: PagesJob): Promise<void> {
  return new Promise((resolve, reject) => {
    const thread = new Worker(new URL('./pagesThread.mjs', import.meta.url), {
      execArgv: [],
      workerData: job
    })
    thread.once('message', (message: { done: true } | { why: Said | string }) => {
      if ('done' in message) resolve()
      else reject(new Failure(message.why))
    })
    thread.once('error', reject)
    thread.once('exit', () => reject(new Failure(said('handover.stopped'))))
  })
}
