import { coded, said } from '../../messages/said.ts'
import { InputError } from '../../errors.ts'

/** PackBits, the run-length code of TIFF. Source: Apple Technical Note TN1023; TIFF 6.0, section 9. */
export function packBits(bytes: Uint8Array): Uint8Array {
  const out: number[] = []
  let at = 0
  const runAt = (i: number): number => {
    let n = 1
    while (i + n < bytes.length && n < 128 && bytes[i + n] === bytes[i]) n++
    return n
  }
  while (at < bytes.length) {
    const run = runAt(at)
    if (run >= 2) {
      out.push(257 - run, bytes[at]!)
      at += run
      continue
    }
    const from = at
    // Two alike within a stretch of others are cheaper left in it; three are not.
    while (at < bytes.length && at - from < 128 && runAt(at) < 3) at++
    out.push(at - from - 1, ...bytes.subarray(from, at))
  }
  return Uint8Array.from(out)
}

/** @param most bytes that are expected at most; more is refused @throws InputError when the code is cut off */
export function unpackBits(packed: Uint8Array, most: number): Uint8Array {
  const out: number[] = []
  for (let at = 0; at < packed.length;) {
    const header = packed[at++]!
    if (header === 128) continue
    const count = header < 128 ? header + 1 : 257 - header
    if (out.length + count > most)
      throw new InputError(coded('places.packedCells'), said('formats.holdMoreThanBytesThey', most))
    if (header < 128) {
      if (at + count > packed.length)
        throw new InputError(coded('places.packedCells'), said('formats.areCutOffInThe'))
      out.push(...packed.subarray(at, at + count))
      at += count
    } else {
      if (at >= packed.length)
        throw new InputError(coded('places.packedCells'), said('formats.areCutOffBeforeThe'))
      for (let i = 0; i < count; i++) out.push(packed[at]!)
      at++
    }
  }
  return Uint8Array.from(out)
}
