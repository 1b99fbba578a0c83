import { Worker } from 'node:worker_threads'
import type { RenderOptions } from './render.ts'
import type { Play } from './script.ts'

export interface RenderOrder {
  play: Play
  file: string
}

export type FromRenderer =
  | { type: 'progress'; done: number; frames: number }
  | { type: 'done' }
  | { type: 'stopped' }
  | { type: 'failed'; message: string }

/** `render` in a worker thread, so that whoever asks stays responsive. Same errors. */
export function renderInWorker(
  play: Play,
  file: string,
  { onProgress, signal }: Pick<RenderOptions, 'onProgress' | 'signal'> = {}
): Promise<void> {
  return new Promise((resolve, reject) => {
    if (signal?.aborted) return reject(signal.reason as Error)
    const worker = new Worker(new URL('./thread.mjs', import.meta.url), {
      workerData: { play, file } satisfies RenderOrder,
      execArgv: []
    })
    const stop = (): void => worker.postMessage('stop')
    signal?.addEventListener('abort', stop)
    worker.on('message', (message: FromRenderer) => {
      if (message.type === 'progress') onProgress?.(message.done, message.frames)
      else if (message.type === 'done') resolve()
      else
        reject(message.type === 'stopped' ? (signal?.reason as Error) : new Error(message.message))
    })
    worker.on('error', reject)
    worker.on('exit', (code) => {
      signal?.removeEventListener('abort', stop)
      reject(new Error(`the painting thread ended with code ${code}`))
    })
  })
}
