import { parentPort, workerData } from 'node:worker_threads'
import { render } from './render.ts'
import type { FromRenderer, RenderOrder } from './renderInWorker.ts'

/** Painting a clip in a thread of its own; see renderInWorker.ts for the other end. */
const { play, file } = workerData as RenderOrder
const stop = new AbortController()
const tell = (message: FromRenderer): void => parentPort!.postMessage(message)

parentPort!.on('message', () => stop.abort(new Error('stopped')))
try {
  await render(play, file, {
    preset: 'veryfast',
    signal: stop.signal,
    onProgress: (done, frames) => tell({ type: 'progress', done, frames })
  })
  tell({ type: 'done' })
} catch (error) {
  tell(
    stop.signal.aborted
      ? { type: 'stopped' }
      : { type: 'failed', message: (error as Error).stack ?? String(error) }
  )
} finally {
  parentPort!.close()
}
