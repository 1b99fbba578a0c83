import { PictureNeed } from '../../core/lookBack/pictures.ts'
import { isRefusal } from '../devices/link/deviceError.ts'
import type { SmallPicture } from '../lookBack/pictureFile.ts'
import { smallPicture } from './smallPicture.ts'

/** Of all cameras together a picture is asked for no more often than this: it costs some hundredths of a second. */
const SPACING_MS = 250
/** Devices take their time; so many are asked at once. */
const AT_ONCE = 4
/** A device that gave none is asked again after this … */
const AGAIN_MS = 60_000
/** … and one that refuses, after this. */
const REFUSED_MS = 3_600_000

interface Watched {
  need: PictureNeed
  snapshot: () => Promise<Buffer>
  /** Not asked before this. */
  notBefore: number
  asking: boolean
}

export interface PictureTakerOptions {
  store: (camera: string, picture: SmallPicture) => Promise<void>
  /** The disk does not take one. */
  failed: (error: Error) => void
  now?: () => number
  spacingMs?: number
  atOnce?: number
  /** A picture is of the moment in which it came; left out: of the middle between the question and that. */
  isOfAnswer?: boolean
}

/** Takes small pictures of what cameras report: of each target's visit, and of ten minutes without any. */
export class PictureTaker {
  private readonly options: Required<PictureTakerOptions>
  private readonly cameras = new Map<string, Watched>()
  /** Those of which one is needed, in order. */
  private readonly waiting = new Set<string>()
  private working = 0
  private lastBegan = -Infinity
  private closed = false

  constructor(options: PictureTakerOptions) {
    this.options = {
      now: Date.now,
      spacingMs: SPACING_MS,
      atOnce: AT_ONCE,
      isOfAnswer: false,
      ...options
    }
  }

  /** @param snapshot gives what the camera shows now, as JPEG */
  heard(
    camera: string,
    at: number,
    targets: readonly { id: number; w: number; h: number }[],
    snapshot: () => Promise<Buffer>
  ): void {
    let of = this.cameras.get(camera)
    if (!of) {
      of = { need: new PictureNeed(at), snapshot, notBefore: 0, asking: false }
      this.cameras.set(camera, of)
    }
    of.snapshot = snapshot
    of.need.take(at, targets)
    if (targets.length) this.look(camera, of)
  }

  /** Looks whether any camera needs one, and takes the next; to be called each second or more often. */
  tick(): void {
    for (const [camera, of] of this.cameras) this.look(camera, of)
    this.takeNext()
  }

  /** The camera is not heard any more. */
  end(camera: string): void {
    this.cameras.delete(camera)
    this.waiting.delete(camera)
  }

  get isTaking(): boolean {
    return this.working > 0
  }

  /** Takes no more. */
  close(): void {
    this.closed = true
    this.cameras.clear()
  }

  private look(camera: string, of: Watched): void {
    const now = this.options.now()
    if (of.asking || now < of.notBefore || !of.need.isNeeded(now)) return
    this.waiting.add(camera)
    this.takeNext()
  }

  private takeNext(): void {
    const { now, spacingMs, atOnce } = this.options
    if (this.closed || this.working >= atOnce || now() - this.lastBegan < spacingMs) return
    for (const camera of this.waiting) {
      this.waiting.delete(camera)
      const of = this.cameras.get(camera)
      // Its target may have gone while others were asked.
      if (!of?.need.isNeeded(now())) continue
      this.lastBegan = now()
      this.working++
      void this.take(camera, of).finally(() => this.working--)
      return
    }
  }

  private async take(camera: string, of: Watched): Promise<void> {
    const { now, store, failed, isOfAnswer } = this.options
    of.asking = true
    const began = now()
    let taken: SmallPicture
    try {
      const picture = await of.snapshot()
      // A snapshot was taken somewhere between the question and the answer.
      const at = isOfAnswer ? now() : Math.round((began + now()) / 2)
      taken = { at, jpeg: await smallPicture(picture) }
    } catch (error) {
      // Devices says what is wrong with it.
      of.notBefore = now() + (isRefusal(error) ? REFUSED_MS : AGAIN_MS)
      return
    } finally {
      of.asking = false
    }
    of.need.taken(taken.at)
    // It may have been left out in between.
    if (this.cameras.get(camera) !== of) return
    await store(camera, taken).catch(failed)
  }
}
