import type CV from '@techstark/opencv-js'
import { LiveAnalyser } from '../../analysis/live.ts'
import type { Looks } from '../../analysis/detector/inWorker.ts'
import { analysedSize, largeSize, type FrameSize } from '../../analysis/frames.ts'
import type { LiveFrame } from '../../core/devices/views.ts'
import { hourOf } from '../lookBack/hours.ts'
import type { HourWriter } from '../lookBack/hourWriter.ts'
import { BgrPictures } from './bgrPicture.ts'
import type { PictureTaker } from './pictureTaker.ts'

/** What has become known of targets is written so often. */
const TAKE_MS = 2000
/** A stream that was away for longer than this begins anew. */
const AWAY_MS = 1000
/** The detector may look at a picture so often; whether it does is its own matter. */
const LARGE_MS = 500
/** How fast pictures come is found out from so many of them. */
const FIRST = 16
/** So many pictures back rows may still become known: a minute, however fast they come. */
const REMEMBERED = 2000
/** Times are reckoned with so many pictures a second at least. */
const LEAST_FPS = 1

export interface StreamAnalyserParts {
  cv: typeof CV
  /** The trained detector; null: it is not there. */
  looks: Looks | null
  writer: HourWriter
  pictures: PictureTaker
  /** The detector has failed; classes are those of the shape from now on. */
  withoutDetector: (error: unknown) => void
}

/**
 * Analyses the pictures of one camera as they come, and writes what it finds as if the camera had reported it.
 * Instants are by the clock here, ms of UTC.
 */
export class StreamAnalyser {
  private readonly camera: string
  private readonly parts: StreamAnalyserParts
  private readonly bgr = new BgrPictures()
  private analyser: LiveAnalyser | null = null
  private size: FrameSize = { width: 0, height: 0 }
  private large: FrameSize = { width: 0, height: 0 }
  /** Instants of the first pictures, before it has begun. */
  private first: number[] = []
  /** The instants of pictures, by number, as far back as rows may be of. */
  private readonly instants = new Map<number, number>()
  private count = 0
  private last = -Infinity
  private taken = 0
  private largeAt = -Infinity
  private hour = 0

  constructor(camera: string, parts: StreamAnalyserParts) {
    this.camera = camera
    this.parts = parts
  }

  /**
   * Takes the next picture, JPEG.
   *
   * @returns the targets that are known to be in it; null: it has not begun
   * @throws Error for what is no picture
   */
  async next(jpeg: Buffer, at: number): Promise<LiveFrame | null> {
    const picture = await this.bgr.decode(jpeg)
    const { writer, pictures } = this.parts
    if (this.analyser && (at - this.last > AWAY_MS || !this.fits(picture)))
      this.restart(at, picture)
    if (!this.analyser) {
      this.begin(at, picture)
      return null
    }
    this.last = at
    this.tick(at)
    writer.begin(this.camera, at)
    this.instants.set(++this.count, at)
    const isLarge = this.parts.looks !== null && at - this.largeAt >= LARGE_MS
    if (isLarge) this.largeAt = at
    try {
      await this.analyser.next(
        this.bgr.scaled(picture, this.size),
        isLarge ? { picture: this.bgr.scaled(picture, this.large), size: this.large } : null
      )
    } catch (error) {
      this.analyser.withoutDetector()
      this.parts.withoutDetector(error)
    }
    if (at - this.taken >= TAKE_MS) {
      this.take()
      this.taken = at
    }
    const targets = this.analyser.inSight
    pictures.heard(this.camera, at, targets, () => Promise.resolve(jpeg))
    return { at, targets }
  }

  /** To be called before what was taken is written at an instant: what is known of an hour that is over belongs to it. */
  tick(at: number): void {
    if (!this.analyser || hourOf(at) <= this.hour) return
    this.take()
    this.hour = hourOf(at)
  }

  /** The stream has ended, or is not analysed any more. */
  end(at: number): void {
    if (this.analyser) {
      this.analyser.endTargets()
      this.take()
      this.analyser.delete()
    }
    this.parts.writer.end(this.camera, at)
    this.parts.pictures.end(this.camera)
  }

  private begin(at: number, picture: FrameSize): void {
    // After a pause the first ones may come all at once.
    if (this.first.length && at - this.first.at(-1)! > AWAY_MS) this.first = []
    this.first.push(at)
    if (this.first.length === FIRST) this.start(at, picture)
  }

  private start(at: number, picture: FrameSize): void {
    const { width, height } = picture
    const { first } = this
    const fps = Math.max(LEAST_FPS, (1000 * (FIRST - 1)) / Math.max(1, first.at(-1)! - first[0]!))
    this.size = analysedSize({ width, height })
    this.large = largeSize({ width, height })
    this.analyser = new LiveAnalyser(this.parts.cv, this.size, fps, this.parts.looks)
    this.hour = hourOf(at)
    this.last = at
  }

  private fits(picture: FrameSize): boolean {
    const { width, height } = analysedSize(picture)
    return width === this.size.width && height === this.size.height
  }

  /** After a pause nobody knows who has stayed; a picture of another size is another view. */
  private restart(at: number, picture: FrameSize): void {
    const { writer } = this.parts
    this.analyser!.endTargets()
    this.take()
    writer.end(this.camera, this.last)
    if (this.fits(picture)) return
    this.analyser!.delete()
    this.instants.clear()
    this.count = 0
    this.start(at, picture)
  }

  private take(): void {
    for (const row of this.analyser!.take()) {
      const at = this.instants.get(row.frame)
      // Of an hour that is over nothing more is written.
      if (at !== undefined && at >= this.hour) this.parts.writer.take(this.camera, at, [row])
    }
    for (const frame of this.instants.keys())
      if (frame < this.count - REMEMBERED) this.instants.delete(frame)
      else break
  }
}
