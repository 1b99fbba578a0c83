import { Worker } from 'node:worker_threads'
import { InputError } from '../core/errors.ts'
import type { Grid } from '../core/measures/measures.ts'
import type { Said } from '../core/messages/said.ts'
import type { Analysis, AnalysisOptions } from './analyse.ts'

export interface WorkerOrder {
  file: string
  name: string
  grid?: Grid
  detector?: boolean
  learnAnewAt?: readonly number[]
}

export type FromWorker =
  | { type: 'progress'; done: number; expected: number | null }
  | { type: 'done'; analysis: Analysis }
  | { type: 'stopped' }
  | { type: 'refused'; place: string; said: Said | string }
  | { type: 'failed'; message: string }

/** `analyse` in a worker thread, so that whoever asks stays responsive. Same options, same errors. */
export function analyseInWorker(
  file: string,
  { name = file, onProgress, signal, grid, learnAnewAt, detector }: AnalysisOptions = {}
): Promise<Analysis> {
  return new Promise((resolve, reject) => {
    if (signal?.aborted) return reject(signal.reason as Error)
    const worker = new Worker(new URL('./thread.mjs', import.meta.url), {
      workerData: { file, name, grid, learnAnewAt, detector } satisfies WorkerOrder,
      execArgv: []
    })
    const stop = (): void => worker.postMessage('stop')
    signal?.addEventListener('abort', stop)
    const end = (settle: () => void): void => {
      signal?.removeEventListener('abort', stop)
      settle()
    }
    worker.on('message', (message: FromWorker) => {
      if (message.type === 'progress') onProgress?.(message.done, message.expected)
      else if (message.type === 'done') end(() => resolve(message.analysis))
      else if (message.type === 'stopped') end(() => reject(signal?.reason as Error))
      else if (message.type === 'refused')
        end(() => reject(new InputError(message.place, message.said)))
      else end(() => reject(new Error(message.message)))
    })
    worker.on('error', (error) => end(() => reject(error)))
    worker.on('exit', (code) =>
      end(() => reject(new Error(`the analysis thread ended with code ${code}`)))
    )
  })
}
