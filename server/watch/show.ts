import { Failure, saidOfError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import type { ServerResponse } from 'node:http'
import { writePiece, type WatchHead } from '../../core/watch/frames.ts'
import type { Devices } from '../devices/service.ts'

/** A device that does not answer is asked again after this. */
const AGAIN_MS = 3000

/** Sends a camera's pictures and targets until nobody looks any more. */
export async function show(
  devices: Devices,
  camera: string,
  raw: ServerResponse,
  signal: AbortSignal
): Promise<void> {
  const say = (head: WatchHead, picture?: Uint8Array): void => {
    // A browser that reads too slowly misses some.
    if (!raw.writableNeedDrain && !raw.destroyed) raw.write(writePiece(head, picture))
  }
  while (!signal.aborted) {
    try {
      const found = await devices.channelShowing(camera)
      if (!found) throw new Failure(said('devices.noDeviceShowsThisCamera'))
      // When one of the two ends, both are begun again.
      const both = new AbortController()
      const stop = (): void => both.abort()
      signal.addEventListener('abort', stop)
      const pictures = async (): Promise<void> => {
        for await (const picture of devices.pictures.frames(found, both.signal))
          say({ what: 'picture', camera, at: Date.now() }, picture)
      }
      const targets = async (): Promise<void> => {
        if (!devices.saysTargets(found)) return new Promise(() => {})
        for await (const frame of devices.targets(found, both.signal))
          say({ what: 'targets', camera, at: frame.at, targets: frame.targets })
      }
      await Promise.race([pictures(), targets()]).finally(() => {
        signal.removeEventListener('abort', stop)
        both.abort()
      })
      throw new Failure(said('devices.streamEnded'))
    } catch (error) {
      if (signal.aborted) return
      say({ what: 'trouble', camera, why: saidOfError(error) })
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS))
    }
  }
}
