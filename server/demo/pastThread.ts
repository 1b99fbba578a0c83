import { parentPort, workerData } from 'node:worker_threads'
import { saidOfError } from '../../core/errors.ts'
import { simulatePast, type PastJob } from './simulate.ts'

/** The other end of past.ts: camera by camera, then it ends. */
try {
  for await (const past of simulatePast(workerData as PastJob)) parentPort!.postMessage(past)
  parentPort!.postMessage({ done: true })
} catch (error) {
  process.stderr.write(`${(error as Error).stack ?? String(error)}\n`)
  parentPort!.postMessage({ why: saidOfError(error) })
}
