import { parentPort, workerData } from 'node:worker_threads'
import { saidOfError } from '../../core/errors.ts'
import type { Camera } from '../../core/formats/plan.ts'
import { simulatePast, type PastJob } from './simulate.ts'

/** The other end of past.ts: a camera is asked for, its past is the answer. */
parentPort!.on('message', (camera: Camera) => void answer(camera))

async function answer(camera: Camera): Promise<void> {
  try {
    parentPort!.postMessage(await simulatePast(workerData as PastJob, camera))
  } catch (error) {
    process.stderr.write(`${(error as Error).stack ?? String(error)}\n`)
    parentPort!.postMessage({ why: saidOfError(error) })
  }
}
