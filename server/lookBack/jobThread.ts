import { parentPort, workerData } from 'node:worker_threads'
import { saidOfError } from '../../core/errors.ts'
import type { Said } from '../../core/messages/said.ts'
import { answer, type AnswerTo, type Job } from './jobs.ts'

/** The other end of threads.ts: one job after the other. */
export type ToJobThread = { id: number; job: Job }
export type FromJobThread =
  | { id: number; progress: number }
  | { id: number; done: AnswerTo<Job> }
  | { id: number; why: Said | string }

const { folder } = workerData as { folder: string }
const tell = (message: FromJobThread): void => parentPort!.postMessage(message)
let working: Promise<void> = Promise.resolve()

parentPort!.on('message', ({ id, job }: ToJobThread) => {
  working = working.then(async () => {
    try {
      tell({ id, done: await answer(folder, job, (progress) => tell({ id, progress })) })
    } catch (error) {
      tell({ id, why: saidOfError(error) })
    }
  })
})
