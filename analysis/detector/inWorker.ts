import { Worker } from 'node:worker_threads'
import { InputError } from '../../core/errors.ts'
import type { Said } from '../../core/messages/said.ts'
import type { FrameSize } from '../frames.ts'
import type { Detected } from './objects.ts'
import type { Tile } from './tiles.ts'

/** What the detector is asked: to look at these tiles of a picture (blue, green, red bytes). */
export interface Question {
  id: number
  picture: Uint8Array
  size: FrameSize
  tiles: readonly Tile[]
}

export type Answer =
  | { type: 'ready' }
  | { type: 'seen'; id: number; seen: Detected[] }
  | { type: 'missing'; said: Said | string }
  | { type: 'failed'; message: string }

/** Looks at pictures; `Detector` does so in a thread of its own. */
export interface Looks {
  /** What is seen, in pixels of the tiles as they are laid out. */
  look(question: Omit<Question, 'id'>): Promise<Detected[]>
}

interface Waiting {
  resolve: (seen: Detected[]) => void
  reject: (error: Error) => void
}

/** The trained detector in a worker thread of its own. To be closed, also after an error. */
export class Detector implements Looks {
  private readonly worker: Worker
  private readonly waiting = new Map<number, Waiting>()
  private readonly ready: Promise<void>
  private asked = 0
  private broken: Error | null = null

  private constructor() {
    this.worker = new Worker(new URL('./thread.mjs', import.meta.url), { execArgv: [] })
    this.ready = new Promise((resolve, reject) => {
      this.waiting.set(-1, { resolve: () => resolve(), reject })
    })
    this.worker.on('message', (answer: Answer) => {
      if (answer.type === 'ready') this.settle(-1)?.resolve([])
      else if (answer.type === 'seen') this.settle(answer.id)?.resolve(answer.seen)
      else
        this.fail(
          answer.type === 'missing' ? new InputError('', answer.said) : new Error(answer.message)
        )
    })
    this.worker.on('error', (error) => this.fail(error))
    this.worker.on('exit', (code) => this.fail(new Error(`the detector ended with code ${code}`)))
  }

  /** @throws InputError when the files of the detector are missing */
  static async start(): Promise<Detector> {
    const detector = new Detector()
    try {
      await detector.ready
      return detector
    } catch (error) {
      await detector.close()
      throw error
    }
  }

  look({ picture, size, tiles }: Omit<Question, 'id'>): Promise<Detected[]> {
    return new Promise((resolve, reject) => {
      if (this.broken) return reject(this.broken)
      const id = this.asked++
      this.waiting.set(id, { resolve, reject })
      // A copy goes: whoever asks may go on using the picture.
      const own = new Uint8Array(picture)
      this.worker.postMessage({ id, picture: own, size, tiles } satisfies Question, [own.buffer])
    })
  }

  /** Ends the thread; who still waits is told that it has ended. */
  async close(): Promise<void> {
    await this.worker.terminate()
  }

  private settle(id: number): Waiting | undefined {
    const waiting = this.waiting.get(id)
    this.waiting.delete(id)
    return waiting
  }

  private fail(error: Error): void {
    this.broken ??= error
    for (const { reject } of this.waiting.values()) reject(this.broken)
    this.waiting.clear()
  }
}
