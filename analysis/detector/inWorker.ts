import { Worker } from 'node:worker_threads'
import { InputError } from '../../core/errors.ts'
import type { Said } from '../../core/messages/said.ts'
import type { FrameSize } from '../frames.ts'
import type { SeenFace } from './faces.ts'
import { SEEN_SIZE, type Detected } from './objects.ts'
import { cutTiles, type Tile } from './tiles.ts'

/** Tiles of a picture (blue, green, red bytes). */
export interface Shown {
  picture: Uint8Array
  size: FrameSize
  tiles: readonly Tile[]
}

/** What the detector is asked: to look for objects in a picture of `SEEN_SIZE`, or for faces in the tiles of one. */
export type Question = { id: number } & Asking
type Asking = { what: 'objects'; rgb: Uint8Array } | ({ what: 'faces' } & Shown)

export type Answer =
  | { type: 'ready' }
  | { type: 'seen'; id: number; seen: Detected[] }
  | { type: 'faces'; id: number; seen: SeenFace[] }
  | { type: 'missing'; said: Said | string }
  | { type: 'failed'; message: string }

/** Looks at pictures; `Detector` does so in a thread of its own. */
export interface Looks {
  /** What is seen, in pixels of the tiles as they are laid out. */
  look(shown: Shown): Promise<Detected[]>
  /** The faces that are seen, in pixels of the whole picture; the tiles are laid out in `FACES_SIZE`. */
  faces(shown: Shown): Promise<SeenFace[]>
}

interface Waiting {
  /** What is given is what was asked for: the thread answers each question by its kind. */
  resolve: (seen: never) => void
  reject: (error: Error) => void
}

/** The trained detector in a worker thread of its own. To be closed, also after an error. */
export class Detector implements Looks {
  private readonly worker: Worker
  private readonly waiting = new Map<number, Waiting>()
  private readonly ready: Promise<void>
  private asked = 0
  private broken: Error | null = null
  private failed: (error: Error) => void = () => {}

  private constructor() {
    this.worker = new Worker(new URL('./thread.mjs', import.meta.url), { execArgv: [] })
    let started = (): void => {}
    this.ready = new Promise((resolve, reject) => {
      started = resolve
      this.failed = reject
    })
    this.worker.on('message', (answer: Answer) => {
      if (answer.type === 'ready') started()
      else if (answer.type === 'seen' || answer.type === 'faces')
        this.settle(answer.id)?.resolve(answer.seen as never)
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

  look({ picture, size, tiles }: Shown): Promise<Detected[]> {
    // Cut here: the detector's thread is the one that all wait for.
    const rgb = cutTiles(picture, size, tiles, SEEN_SIZE)
    return this.ask<Detected[]>({ what: 'objects', rgb }, rgb)
  }

  faces({ picture, size, tiles }: Shown): Promise<SeenFace[]> {
    // A copy goes: whoever asks may go on using the picture.
    const own = new Uint8Array(picture)
    return this.ask<SeenFace[]>({ what: 'faces', picture: own, size, tiles }, own)
  }

  /** @param given what is of no more use here */
  private ask<T>(asking: Asking, given: Uint8Array<ArrayBuffer>): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      if (this.broken) return reject(this.broken)
      const id = this.asked++
      this.waiting.set(id, { resolve, reject })
      this.worker.postMessage({ id, ...asking } satisfies Question, [given.buffer])
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
    this.failed(error)
    for (const { reject } of this.waiting.values()) reject(this.broken)
    this.waiting.clear()
  }
}
