import type { FrameSize } from '../frames.ts'
import type { Looks } from './inWorker.ts'
import { seenOnce } from './matching.ts'
import { SEEN_SIZE, type Detected } from './objects.ts'
import { boxInPicture, layOut, tileOf, type Tile } from './tiles.ts'

/** What is seen in squares of a picture that are shown in one look: each thing once, in pixels of the picture. */
export async function lookAt(
  looks: Looks,
  picture: Uint8Array,
  size: FrameSize,
  squares: readonly Tile['from'][]
): Promise<Detected[]> {
  const tiles = layOut(squares, SEEN_SIZE)
  const seen = await looks.look({ picture, size, tiles })
  return seenOnce(
    seen.flatMap((one) => {
      const tile = tileOf(one, tiles)
      return tile ? { ...one, ...boxInPicture(one, tile) } : []
    })
  )
}
