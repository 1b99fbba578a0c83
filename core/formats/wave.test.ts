import { spawnSync } from 'node:child_process'
import { readFileSync, readdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { describe, expect, test } from '@jest/globals'
import { PHRASES } from './actions.ts'
import { MAX_WAVE_BYTES, readWave } from './wave.ts'

const folder = new URL('../../server/voices/', import.meta.url)

/** A WAVE file by ffmpeg, a general-purpose encoder. */
const made = (...args: string[]): Uint8Array => {
  const { stdout, status, stderr } = spawnSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'sine=frequency=440:duration=1.5',
      ...args,
      '-f',
      'wav',
      '-bitexact',
      'pipe:1'
    ],
    { maxBuffer: 2 ** 24 }
  )
  if (status !== 0) throw new Error(stderr.toString())
  const file = new Uint8Array(stdout)
  // Into a pipe ffmpeg cannot write sizes that it knows only at the end.
  const view = new DataView(file.buffer)
  view.setUint32(4, file.length - 8, true)
  const data = Buffer.from(file).indexOf('data')
  view.setUint32(data + 4, file.length - data - 8, true)
  return file
}
const good = made('-ar', '8000', '-ac', '1', '-c:a', 'pcm_s16le')
const changed = (change: (view: DataView, file: Uint8Array) => void): Uint8Array => {
  const file = good.slice()
  change(new DataView(file.buffer), file)
  return file
}

describe('voice files', () => {
  test.each([
    ['pcm_s16le', 'pcm16'],
    ['pcm_u8', 'pcm8'],
    ['pcm_alaw', 'alaw'],
    ['pcm_mulaw', 'ulaw']
  ])('accepts %s from a general-purpose encoder', (codec, encoding) => {
    expect(readWave(made('-ar', '8000', '-ac', '1', '-c:a', codec))).toMatchObject({
      encoding,
      seconds: expect.closeTo(1.5, 2)
    })
  })

  test('every shipped phrase is valid and as long as ffprobe says', () => {
    expect(readdirSync(folder).sort()).toEqual([...PHRASES].map((p) => `${p}.wav`).sort())
    for (const phrase of PHRASES) {
      const path = fileURLToPath(new URL(`${phrase}.wav`, folder))
      const said = Number(
        spawnSync('ffprobe', [
          '-v',
          'error',
          '-show_entries',
          'format=duration',
          '-of',
          'csv=p=0',
          path
        ]).stdout.toString()
      )
      expect(readWave(readFileSync(path)).seconds).toBeCloseTo(said, 2)
    }
  })

  test('skips unknown chunks, also of odd size', () => {
    const list = Buffer.concat([
      Buffer.from('LIST'),
      Buffer.from([3, 0, 0, 0]),
      Buffer.from('abc\0')
    ])
    const file = Buffer.concat([good.subarray(0, 36), list, good.subarray(36)])
    file.writeUInt32LE(file.length - 8, 4)
    expect(readWave(file).seconds).toBeCloseTo(1.5, 2)
  })

  test.each<[string, Uint8Array, string]>([
    [
      'two channels',
      made('-ar', '8000', '-ac', '2', '-c:a', 'pcm_s16le'),
      'byte 22: says 2 channels; must be 1 (mono)'
    ],
    [
      '44.1 kHz',
      made('-ar', '44100', '-ac', '1', '-c:a', 'pcm_s16le'),
      'byte 24: says 44100 samples a second; must be 8000 (8 kHz)'
    ],
    [
      '24 bits',
      made('-ar', '8000', '-ac', '1', '-c:a', 'pcm_s24le'),
      'bits a sample; must be 8 or 16'
    ],
    [
      'floating point',
      made('-ar', '8000', '-ac', '1', '-c:a', 'pcm_f32le'),
      'byte 20: is the encoding 3; must be 1 (PCM), 6 (A-law) or 7 (µ-law)'
    ],
    ['nothing', new Uint8Array(0), 'byte 0: the file ends here'],
    [
      'another file',
      Buffer.from('ID3 an MP3, no WAVE at all'),
      'byte 0: is "ID3 "; a WAVE file begins with "RIFF"'
    ],
    [
      'no WAVE',
      changed((_, f) => f.set(Buffer.from('AVI '), 8)),
      'byte 8: is "AVI "; must be "WAVE"'
    ],
    ['cut off', good.subarray(0, 1000), 'byte 4: says that the file has'],
    [
      'a chunk that is longer than the file',
      changed((v) => v.setUint32(40, 1_000_000, true)),
      'byte 40: says that the chunk "data" has 1000000 bytes'
    ],
    ['no sound', changed((v) => v.setUint32(40, 0, true)), 'byte 40: says that there is no sound'],
    [
      'half a sample',
      changed((v) => {
        v.setUint32(40, 23999, true)
      }),
      'byte 40: says 23999 bytes of sound; samples have 2 bytes'
    ],
    [
      'no format',
      changed((_, f) => f.set(Buffer.from('xxxx'), 12)),
      'byte 36: the sound comes before the chunk "fmt "'
    ],
    ['too large', new Uint8Array(MAX_WAVE_BYTES + 1), `byte ${MAX_WAVE_BYTES}: the file goes on`]
  ])('%s is refused with the byte and what would be right', (_, file, message) =>
    expect(() => readWave(file)).toThrowWords(message)
  )

  test('any change of the first bytes is accepted or refused with a reason', () => {
    for (let at = 0; at < 44; at++)
      for (const value of [0, 1, 0x7f, 0xff]) {
        const file = changed((_, f) => (f[at] = value))
        try {
          readWave(file)
        } catch (error) {
          expect((error as Error).name).toBe('InputError')
        }
      }
  })
})
