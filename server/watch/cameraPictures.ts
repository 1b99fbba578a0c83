import { ifOffered } from '../devices/link/deviceError.ts'
import type { SmallPicture } from '../lookBack/pictureFile.ts'
import { PictureTaker } from './pictureTaker.ts'

/** A stream has to be opened for one picture: that takes a second or two, and a third of a core. */
const STREAMS_SPACING_MS = 2000

export interface CameraPicturesOptions {
  store: (camera: string, picture: SmallPicture) => Promise<void>
  /** The disk does not take one. */
  failed: (error: Error) => void
  /** The next picture of a camera's stream, as JPEG. */
  fromStream: (camera: string) => Promise<Buffer>
  now?: () => number
}

/**
 * Small pictures of what cameras report: as snapshots, or of a device that gives none from its stream, one after the other,
 * so that those with snapshots do not wait for them.
 */
export class CameraPictures {
  private readonly snapshots: PictureTaker
  private readonly streams: PictureTaker
  private readonly fromStream: CameraPicturesOptions['fromStream']
  private readonly withoutSnapshots = new Set<string>()

  constructor({ fromStream, ...options }: CameraPicturesOptions) {
    this.fromStream = fromStream
    this.snapshots = new PictureTaker(options)
    this.streams = new PictureTaker({
      ...options,
      spacingMs: STREAMS_SPACING_MS,
      atOnce: 1,
      isOfAnswer: true
    })
  }

  /** @param snapshot gives what the camera shows now, as JPEG; it throws a DeviceError */
  heard(
    camera: string,
    at: number,
    targets: readonly { id: number; w: number; h: number }[],
    snapshot: () => Promise<Buffer>
  ): void {
    if (this.withoutSnapshots.has(camera))
      return this.streams.heard(camera, at, targets, () => this.fromStream(camera))
    this.snapshots.heard(camera, at, targets, async () => {
      const picture = await ifOffered(snapshot())
      if (picture) return picture
      // From the next moment on it is asked for its stream.
      this.snapshots.end(camera)
      this.withoutSnapshots.add(camera)
      throw new Error('no snapshots')
    })
  }

  tick(): void {
    this.snapshots.tick()
    this.streams.tick()
  }

  /** The camera is not heard any more; the next device that shows it may give snapshots. */
  end(camera: string): void {
    this.snapshots.end(camera)
    this.streams.end(camera)
    this.withoutSnapshots.delete(camera)
  }

  close(): void {
    this.snapshots.close()
    this.streams.close()
  }
}
