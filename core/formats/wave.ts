import { said, type Said } from '../messages/said.ts'
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
  const fail = (byte: number, why: Said): never => {
    throw new InputError(`byte ${byte}`, why)
  }
  if (file.length > MAX_WAVE_BYTES)
    fail(MAX_WAVE_BYTES, said('formats.theFileGoesOnTo', file.length, MAX_WAVE_BYTES))
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength)
  const four = (at: number): string => String.fromCharCode(...file.subarray(at, at + 4))
  const shown = (at: number): string => four(at).replace(/[^\x20-\x7e]/g, '·')
  if (file.length < 12) fail(file.length, said('formats.theFileEndsHereA'))
  if (four(0) !== 'RIFF') fail(0, said('formats.isAWave', shown(0)))
  if (four(8) !== 'WAVE') fail(8, said('formats.isMustBe7', shown(8)))
  const says = view.getUint32(4, true) + 8
  if (says > file.length) fail(4, said('formats.saysThatTheFileHas', says, file.length))
  let format: { tag: number; bits: number } | null = null
  let data: number | null = null
  for (let at = 12; at + 8 <= says;) {
    const id = four(at)
    const size = view.getUint32(at + 4, true)
    if (at + 8 + size > says)
      fail(at + 4, said('formats.saysThatTheChunk', shown(at), size, says - at - 8))
    if (id === 'fmt ') {
      if (size < 16) fail(at + 4, said('formats.saysThatTheFormatHas', size))
      let tag = view.getUint16(at + 8, true)
      if (tag === EXTENSIBLE) {
        if (size < 40) fail(at + 4, said('formats.saysThatTheExtensibleFormat', size))
        tag = view.getUint16(at + 8 + 24, true)
      }
      const [channels, rate, block, bits] = [
        view.getUint16(at + 10, true),
        view.getUint32(at + 12, true),
        view.getUint16(at + 20, true),
        view.getUint16(at + 22, true)
      ]
      if (tag !== PCM && tag !== A_LAW && tag !== MU_LAW)
        fail(at + 8, said('formats.isTheEncodingMust', tag))
      if (channels !== 1) fail(at + 10, said('formats.saysChannelsMustBe1', channels))
      if (rate !== RATE) fail(at + 12, said('formats.saysSamplesASecondMust', rate, RATE))
      if (tag === PCM ? bits !== 8 && bits !== 16 : bits !== 8)
        fail(at + 22, said('formats.saysBitsASampleMust', bits, tag === PCM))
      if (block !== bits / 8) fail(at + 20, said('formats.saysBytesASampleMust', block, bits / 8))
      format = { tag, bits }
    } else if (id === 'data') {
      if (!format) return fail(at, said('formats.theSoundComesBeforeThe'))
      if (size === 0) fail(at + 4, said('formats.saysThatThereIsNo'))
      if (size % (format.bits / 8))
        fail(at + 4, said('formats.saysBytesOfSoundSamples', size, format.bits / 8))
      data = size
    }
    // Chunks begin at even bytes.
    at += 8 + size + (size % 2)
  }
  if (!format) return fail(says, said('formats.theFileEndsWithoutA'))
  if (data === null) return fail(says, said('formats.theFileEndsWithoutA2'))
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
