import { InputError } from '../errors.ts'

/**
 * Voice files: RIFF WAVE, mono, 8 kHz, at most 512 KB (docs/references.md, common practice), PCM of 8 or 16 bits, A-law
 * or µ-law. Source of the layout: Microsoft and IBM, Multimedia Programming Interface and Data Specifications 1.0 (from
 * memory).
 */
export interface Wave {
  encoding: 'pcm8' | 'pcm16' | 'alaw' | 'ulaw'
  seconds: number
  bytes: number
}

export const MAX_WAVE_BYTES = 512 * 1024
const RATE = 8000
const [PCM, A_LAW, MU_LAW, EXTENSIBLE] = [1, 6, 7, 0xfffe]

/**
 * Checks a voice file byte by byte.
 *
 * @throws InputError with the byte at which it is wrong, and what would be right
 */
export function readWave(file: Uint8Array): Wave {
  const fail = (byte: number, why: string): never => {
    throw new InputError(`byte ${byte}`, why)
  }
  if (file.length > MAX_WAVE_BYTES)
    fail(
      MAX_WAVE_BYTES,
      `the file goes on to ${file.length} bytes; at most ${MAX_WAVE_BYTES} (512 KB) are allowed`
    )
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength)
  const four = (at: number): string => String.fromCharCode(...file.subarray(at, at + 4))
  const shown = (at: number): string => four(at).replace(/[^\x20-\x7e]/g, '·')
  if (file.length < 12)
    fail(file.length, 'the file ends here; a WAVE file begins with 12 bytes RIFF, size, WAVE')
  if (four(0) !== 'RIFF') fail(0, `is "${shown(0)}"; a WAVE file begins with "RIFF"`)
  if (four(8) !== 'WAVE') fail(8, `is "${shown(8)}"; must be "WAVE"`)
  const says = view.getUint32(4, true) + 8
  if (says > file.length)
    fail(4, `says that the file has ${says} bytes, and it has ${file.length}: it was cut off`)
  let format: { tag: number; bits: number } | null = null
  let data: number | null = null
  for (let at = 12; at + 8 <= says;) {
    const id = four(at)
    const size = view.getUint32(at + 4, true)
    if (at + 8 + size > says)
      fail(
        at + 4,
        `says that the chunk "${shown(at)}" has ${size} bytes, and the file ends after ${says - at - 8} of them`
      )
    if (id === 'fmt ') {
      if (size < 16) fail(at + 4, `says that the format has ${size} bytes; it needs 16 or more`)
      let tag = view.getUint16(at + 8, true)
      if (tag === EXTENSIBLE) {
        if (size < 40)
          fail(at + 4, `says that the extensible format has ${size} bytes; it needs 40`)
        tag = view.getUint16(at + 8 + 24, true)
      }
      const [channels, rate, block, bits] = [
        view.getUint16(at + 10, true),
        view.getUint32(at + 12, true),
        view.getUint16(at + 20, true),
        view.getUint16(at + 22, true)
      ]
      if (tag !== PCM && tag !== A_LAW && tag !== MU_LAW)
        fail(at + 8, `is the encoding ${tag}; must be 1 (PCM), 6 (A-law) or 7 (µ-law)`)
      if (channels !== 1) fail(at + 10, `says ${channels} channels; must be 1 (mono)`)
      if (rate !== RATE) fail(at + 12, `says ${rate} samples a second; must be ${RATE} (8 kHz)`)
      if (tag === PCM ? bits !== 8 && bits !== 16 : bits !== 8)
        fail(at + 22, `says ${bits} bits a sample; must be ${tag === PCM ? '8 or 16' : '8'}`)
      if (block !== bits / 8) fail(at + 20, `says ${block} bytes a sample; must be ${bits / 8}`)
      format = { tag, bits }
    } else if (id === 'data') {
      if (!format)
        return fail(at, 'the sound comes before the chunk "fmt " that says how to read it')
      if (size === 0) fail(at + 4, 'says that there is no sound')
      if (size % (format.bits / 8))
        fail(at + 4, `says ${size} bytes of sound; samples have ${format.bits / 8} bytes`)
      data = size
    }
    // Chunks begin at even bytes.
    at += 8 + size + (size % 2)
  }
  if (!format) return fail(says, 'the file ends without a chunk "fmt "')
  if (data === null) return fail(says, 'the file ends without a chunk "data"')
  const encoding =
    format.tag === A_LAW
      ? 'alaw'
      : format.tag === MU_LAW
        ? 'ulaw'
        : format.bits === 8
          ? 'pcm8'
          : 'pcm16'
  return { encoding, seconds: data / (format.bits / 8) / RATE, bytes: file.length }
}
