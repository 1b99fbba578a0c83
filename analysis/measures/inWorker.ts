import { Worker } from 'node:worker_threads'
import { checkGrid, type Grid, type Measures } from '../../core/measures/measures.ts'
import type { FrameSize } from '../frames.ts'

export interface MeasuringOrder {
  grid: Grid
  size: FrameSize
  fps: number
}

/** A picture (blue, green, red bytes), or what to do. */
export type ToMeasurer = Uint8Array | 'learnAnew' | 'finish'
export type FromMeasurer = { type: 'taken' } | { type: 'measured'; measures: Measures }

/** Pictures that may wait to be measured: so much memory they take, and no more. */
const AHEAD = 32

/** `Measurer` in a worker thread, beside whatever else is done with the pictures. To be closed, also after an error. */
export class MeasuringThread {
  private readonly worker: Worker
  private readonly ended: Promise<Measures>
  private waiting = 0
  private broken = false
  private wake = (): void => {}

  /**
   * @param size of the pictures that will be given, in pixels
   * @throws InputError for a grid finer than the picture
   */
  constructor(grid: Grid, size: FrameSize, fps: number) {
    checkGrid(grid, size.width, size.height)
    this.worker = new Worker(new URL('./thread.mjs', import.meta.url), {
      workerData: { grid, size, fps } satisfies MeasuringOrder,
      execArgv: []
    })
    this.ended = new Promise((resolve, reject) => {
      const fail = (error: Error): void => {
        this.broken = true
        reject(error)
        this.wake()
      }
      this.worker.on('message', (message: FromMeasurer) => {
        if (message.type === 'measured') resolve(message.measures)
        else {
          this.waiting--
          this.wake()
        }
      })
      this.worker.on('error', fail)
      this.worker.on('exit', (code) =>
        fail(new Error(`the measuring thread ended with code ${code}`))
      )
    })
    // Its error is thrown to whoever waits for it; until then it must not count as unhandled.
    this.ended.catch(() => {})
  }

  learnAnew(): void {
    this.send('learnAnew')
  }

  /**
   * Gives the next picture, which may be used again afterwards; waits while too many are not measured yet.
   *
   * @throws what the thread died of
   */
  async next(picture: Uint8Array): Promise<void> {
    const own = new Uint8Array(picture)
    this.waiting++
    this.send(own, [own.buffer])
    while (this.waiting > AHEAD && !this.broken)
      await new Promise<void>((resolve) => (this.wake = resolve))
    if (this.broken) await this.ended
  }

  /** All that has been measured. @throws what the thread died of */
  finish(): Promise<Measures> {
    this.send('finish')
    return this.ended
  }

  async close(): Promise<void> {
    await this.worker.terminate()
  }

  private send(message: ToMeasurer, given: ArrayBuffer[] = []): void {
    this.worker.postMessage(message, given)
  }
}
