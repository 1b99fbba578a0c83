import { parentPort, workerData } from 'node:worker_threads'
import type { FromMeasurer, MeasuringOrder, ToMeasurer } from './inWorker.ts'
import { Measurer } from './measurer.ts'

/** The frame measures of a clip in a thread of their own; see inWorker.ts for the other end. */
const { grid, size, fps } = workerData as MeasuringOrder
const tell = (message: FromMeasurer): void => parentPort!.postMessage(message)
const measurer = new Measurer(grid, size.width, size.height, fps)

parentPort!.on('message', (message: ToMeasurer) => {
  if (message === 'learnAnew') measurer.learnAnew()
  else if (message === 'finish') tell({ type: 'measured', measures: measurer.finish() })
  else {
    measurer.next(message)
    tell({ type: 'taken' })
  }
})
