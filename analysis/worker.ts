import { parentPort, workerData } from 'node:worker_threads'
import { InputError } from '../core/errors.ts'
import { analyse } from './analyse.ts'
import type { FromWorker, WorkerOrder } from './inWorker.ts'

/** The analysis of one clip in a thread of its own; see inWorker.ts for the other end. */
const { file, ...order } = workerData as WorkerOrder
const stop = new AbortController()
const tell = (message: FromWorker): void => parentPort!.postMessage(message)

parentPort!.on('message', () => stop.abort(new Error('stopped')))
try {
  const analysis = await analyse(file, {
    ...order,
    signal: stop.signal,
    onProgress: (done, expected) => tell({ type: 'progress', done, expected })
  })
  tell({ type: 'done', analysis })
} catch (error) {
  if (stop.signal.aborted) tell({ type: 'stopped' })
  else if (error instanceof InputError)
    tell({ type: 'refused', place: error.place, said: error.said })
  else tell({ type: 'failed', message: (error as Error).stack ?? String(error) })
} finally {
  parentPort!.close()
}
