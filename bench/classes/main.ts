import { execFileSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { classify } from '../../analysis/classify.ts'
import { match } from '../../analysis/detector/matching.ts'
import { Detector } from '../../analysis/detector/inWorker.ts'
import { SEEN_SIZE, type Detected } from '../../analysis/detector/objects.ts'
import { boxInPicture, layOut, squareAround } from '../../analysis/detector/tiles.ts'
import type { FrameSize } from '../../analysis/frames.ts'
import type { SeenRow } from '../../analysis/target.ts'
import type { Box } from '../../core/geometry/shapes.ts'
import { CLASSES, type TargetClass } from '../../core/targets/classes.ts'
import { CUT_OUT, GROUPS, SCENES } from './objects.ts'

const opencv = '/usr/share/doc/opencv-doc/examples/data'
const STAMPS = 'tuxpaint-stamps-default'
const PEOPLE = '@vladmandic/face-api@1.7.15'

/** What a thing truly is, and what it was taken for; null: for nothing. */
interface Verdict {
  truth: TargetClass | null
  detector: TargetClass | null
  shape: TargetClass | null
}

/**
 * Recall and precision of the detector by class, on public still pictures, and those of the shape beside it. The
 * pictures are fetched (some 175 MB) from Debian's packages and the package registry, into a folder that is removed.
 */
export async function benchClasses(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wo-classes-'))
  const detector = await Detector.start()
  try {
    const verdicts: Verdict[] = []
    const stamps = fetchStamps(folder)
    for (const [truth, files] of Object.entries(CUT_OUT) as [TargetClass, string[]][])
      for (const file of files) verdicts.push(await cutOut(detector, join(stamps, file), truth))
    const groups = fetchGroups(folder)
    for (const [file, people] of SCENES)
      verdicts.push(...(await scene(detector, join(opencv, file), people)))
    for (const [file, people] of GROUPS)
      verdicts.push(...(await scene(detector, join(groups, file), people)))
    table(verdicts)
  } finally {
    await detector.close()
    rmSync(folder, { recursive: true, force: true })
  }
}

function fetchStamps(folder: string): string {
  execFileSync('apt-get', ['download', STAMPS], { cwd: folder, stdio: 'ignore' })
  const file = readdirSync(folder).find((name) => name.startsWith(STAMPS))!
  execFileSync('dpkg', ['-x', file, '.'], { cwd: folder })
  return join(folder, 'usr/share/tuxpaint/stamps')
}

function fetchGroups(folder: string): string {
  execFileSync('npm', ['pack', '--silent', PEOPLE], { cwd: folder, stdio: 'ignore' })
  const file = readdirSync(folder).find((name) => name.endsWith('.tgz'))!
  execFileSync('tar', ['xzf', file], { cwd: folder })
  const demo = join(folder, 'package/demo')
  if (!existsSync(demo)) throw new Error(`${PEOPLE} has no folder demo`)
  return demo
}

/** A picture's bytes, four a pixel: red, green, blue, alpha; no larger than asked. */
function pixels(file: string, most: number): { bytes: Uint8Array; size: FrameSize } {
  const probe = ['-v', 'error', '-show_entries', 'stream=width,height', '-of', 'csv=p=0', file]
  const [w = 0, h = 0] = String(execFileSync('ffprobe', probe)).trim().split(',').map(Number)
  const by = Math.min(1, most / Math.max(w, h))
  const size = { width: Math.round(w * by), height: Math.round(h * by) }
  const scaled = [
    '-frames:v',
    '1',
    '-vf',
    `format=rgba,scale=${size.width}:${size.height}:flags=area`
  ]
  const raw = ['-pix_fmt', 'rgba', '-f', 'rawvideo', '-']
  const bytes = execFileSync('ffmpeg', ['-v', 'error', '-i', file, ...scaled, ...raw], {
    maxBuffer: 1e8
  })
  return { bytes: new Uint8Array(bytes), size }
}

/** On the grey of asphalt, with room around. */
function onGrey({ bytes, size }: ReturnType<typeof pixels>, room: number) {
  const whole = { width: size.width + 2 * room, height: size.height + 2 * room }
  const picture = new Uint8Array(whole.width * whole.height * 3).fill(118)
  let [left, top, right, bottom] = [Infinity, Infinity, 0, 0]
  for (let y = 0; y < size.height; y++)
    for (let x = 0; x < size.width; x++) {
      const k = 4 * (y * size.width + x)
      const to = 3 * ((y + room) * whole.width + x + room)
      const alpha = bytes[k + 3]! / 255
      for (let c = 0; c < 3; c++)
        picture[to + c] = alpha * bytes[k + 2 - c]! + (1 - alpha) * picture[to + c]!
      if (alpha < 0.5) continue
      ;[left, right] = [Math.min(left, x), Math.max(right, x + 1)]
      ;[top, bottom] = [Math.min(top, y), Math.max(bottom, y + 1)]
    }
  const box = { x: left + room, y: top + room, w: right - left, h: bottom - top }
  return { picture, size: whole, box }
}

/** A single thing, shown to the detector as a target is. */
async function cutOut(detector: Detector, file: string, truth: TargetClass): Promise<Verdict> {
  const shown = pixels(file, 240)
  const { picture, size, box } = onGrey(shown, 180)
  const tiles = layOut([squareAround(box, size)], SEEN_SIZE)
  const seen = await detector.look({ picture, size, tiles })
  const inPicture = seen.map((one): Detected => ({ ...one, ...boxInPicture(one, tiles[0]!) }))
  return { truth, detector: match([box], inPicture)[0]?.cls ?? null, shape: byShape(box, truth) }
}

/** How high things of a class are, in metres, more or less. */
const METRES: Readonly<Partial<Record<TargetClass, number>>> = {
  person: 1.75,
  vehicle: 1.7,
  animal: 0.7
}

/**
 * What the shape says of a box of that form that moves evenly by one height a second, where somebody of 1.75 m would be
 * a sixth of the picture high.
 */
function byShape({ w, h }: Box, truth: TargetClass): TargetClass | null {
  const size = { width: 320, height: 180 }
  const high = (30 * (METRES[truth] ?? 1)) / 1.75
  const rows = Array.from({ length: 20 }, (_, i): SeenRow => ({
    ...{ frame: 200 + i, x: 60 + (high * i) / 10, y: 90, w: (high * w) / h, h: high },
    area: (high * high * w) / h,
    ...{ measured: true, wavers: false }
  }))
  const cls = classify(rows, 10, size).at(-1)!.cls
  return cls === 'unknown' ? null : cls
}

/** A scene with so many people and nothing else that has a class: who is missed is taken for nothing. */
async function scene(detector: Detector, file: string, people: number): Promise<Verdict[]> {
  const { bytes, size } = pixels(file, 1024)
  const picture = new Uint8Array(size.width * size.height * 3)
  for (let i = 0; i < size.width * size.height; i++)
    for (let c = 0; c < 3; c++) picture[3 * i + c] = bytes[4 * i + 2 - c]!
  const side = Math.max(size.width, size.height)
  const from = { x: (size.width - side) / 2, y: (size.height - side) / 2, side }
  const seen = await detector.look({ picture, size, tiles: layOut([from], SEEN_SIZE) })
  const found = seen.filter(({ cls }) => cls === 'person').length
  return [
    ...Array.from({ length: people }, (_, i): Verdict => ({
      truth: 'person',
      detector: i < found ? 'person' : null,
      shape: null
    })),
    ...seen
      .filter(({ cls }, i) => cls !== 'person' || i >= people)
      .map(({ cls }): Verdict => ({ truth: null, detector: cls, shape: null }))
  ]
}

/** A table in Markdown, for docs/classification.md. */
function table(verdicts: readonly Verdict[]): void {
  const share = (part: number, all: number): string =>
    all ? `${((100 * part) / all).toFixed(0)} % (${part} of ${all})` : 'none'
  console.log('| class | recall | precision | shape: recall | shape: precision |')
  console.log('| --- | --- | --- | --- | --- |')
  for (const cls of CLASSES) {
    const true_ = verdicts.filter(({ truth }) => truth === cls)
    if (!true_.length) continue
    // People in groups stand before and behind each other: their shapes are not looked at.
    const single = true_.filter((one) => one.shape !== null || cls !== 'person')
    const of = (by: 'detector' | 'shape', all: readonly Verdict[]): [string, string] => {
      const right = all.filter((one) => one[by] === cls).length
      return [
        share(right, all.length),
        share(right, verdicts.filter((one) => one[by] === cls).length)
      ]
    }
    console.log(`| ${[cls, ...of('detector', true_), ...of('shape', single)].join(' | ')} |`)
  }
}
