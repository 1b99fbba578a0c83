import { execFileSync } from 'node:child_process'
import { iou } from '../../target.ts'
import { classOfLabel } from '../labels.ts'
import { loadModel } from '../model.ts'
import { ObjectDetector, SEEN_SIZE } from '../objects.ts'
import { cutTiles, layOut, type Tile } from '../tiles.ts'

/**
 * What the network says as the package ships it, with all of its labels, beside what it says as it is used here, as
 * JSON; in a process of its own, because the runtime of the network does not load in the test runner. Photographs of
 * Debian's opencv-doc.
 */
const samples = '/usr/share/doc/opencv-doc/examples/data'
const least = 0.3 // As `ObjectDetector` takes them, and each thing once.

interface Seen {
  x: number
  y: number
  w: number
  h: number
  cls: string
  likelihood: number
}

const whole = await loadModel('centernet')
const used = await ObjectDetector.load()

function wholeLook(rgb: Uint8Array): Seen[] {
  const [rows] = whole.run(rgb, [1, SEEN_SIZE, SEEN_SIZE, 3], ['tower_0/detections']) as [
    Float32Array
  ]
  const found: Seen[] = []
  for (let i = 0; i + 6 <= rows.length; i += 6) {
    const [x = 0, y = 0, right = 0, bottom = 0, likelihood = 0, label = -1] = rows.subarray(
      i,
      i + 6
    )
    const cls = classOfLabel(label)
    const one = { x, y, w: right - x, h: bottom - y, cls: cls ?? '', likelihood }
    const isTwice = found.some((other) => other.cls === cls && iou(other, one) > 0.5)
    if (cls !== null && likelihood >= least && !isTwice) found.push(one)
  }
  return found
}

const picture = (file: string, { width, height }: { width: number; height: number }, at: number) =>
  new Uint8Array(
    execFileSync(
      'ffmpeg',
      [
        ...['-v', 'error', '-ss', String(at), '-i', `${samples}/${file}`, '-frames:v', '1'],
        ...[
          '-vf',
          `scale=${width}:${height}:flags=area`,
          '-pix_fmt',
          'bgr24',
          '-f',
          'rawvideo',
          '-'
        ]
      ],
      { maxBuffer: 1e8 }
    )
  )

/** Squares on the walkers of the campus. */
const campus: readonly Tile['from'][] = [
  { x: 100, y: 100, side: 200 },
  { x: 300, y: 100, side: 150 },
  { x: 200, y: 200, side: 200 },
  { x: 500, y: 200, side: 300 },
  { x: 200, y: 300, side: 200 }
]
const looks = [
  {
    file: 'basketball1.png',
    size: { width: 640, height: 480 },
    at: 0,
    squares: [{ x: 0, y: -80, side: 640 }]
  },
  {
    file: 'messi5.jpg',
    size: { width: 548, height: 342 },
    at: 0,
    squares: [{ x: 0, y: -103, side: 548 }]
  },
  ...[5, 51.5].flatMap((at) =>
    [2, 4, 5].map((count) => ({
      file: 'vtest.avi',
      size: { width: 768, height: 576 },
      at,
      squares: campus.slice(0, count)
    }))
  )
].map(({ file, size, at, squares }) => {
  const bgr = picture(file, size, at)
  const tiles = layOut(squares, SEEN_SIZE)
  const shown = cutTiles(bgr, size, tiles, SEEN_SIZE)
  return { own: wholeLook(shown), used: used.look(shown) }
})

process.stdout.write(JSON.stringify(looks))
