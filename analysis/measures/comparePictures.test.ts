import { execFileSync } from 'node:child_process'
import { expect, test } from '@jest/globals'
import { comparePictures } from './comparePictures.ts'

/** OpenCV's pedestrians (Debian: opencv-doc), real footage from a camera that does not move. */
const FOOTAGE = '/usr/share/doc/opencv-doc/examples/data/vtest.avi'

/** @param filter of ffmpeg, which makes of the picture what weather and people make of it */
const picture = (seconds: number, filter = 'null'): Buffer =>
  execFileSync(
    'ffmpeg',
    [
      ...['-v', 'error', '-ss', String(seconds), '-i', FOOTAGE, '-frames:v', '1'],
      ...['-vf', filter, '-f', 'image2pipe', '-c:v', 'png', 'pipe:1']
    ],
    { maxBuffer: 2 ** 27 }
  )

test.each([
  ['35 s later, other people', 'null', []],
  ['a brighter day', 'eq=brightness=0.1', []],
  ['dirt that takes the detail', 'gblur=sigma=8', ['outOfFocus']],
  ['covered', 'drawbox=color=gray:t=fill', ['covered']],
  ['turned', 'crop=iw-120:ih-90:120:90,scale=768:576', ['moved']],
  ['washed out', 'eq=brightness=0.7', ['washedOut']],
  ['another shape', 'crop=iw/2:ih:0:0', ['moved']]
])('%s', async (_, filter, causes) => {
  expect(await comparePictures(picture(5), picture(40, filter))).toEqual(causes)
})

test('dark: whatever else it may look like', async () => {
  const found = await comparePictures(picture(5), picture(40, 'eq=brightness=-0.6'))
  expect(found[0]).toBe('dark')
})
