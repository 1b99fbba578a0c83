import { readFileSync, writeFileSync } from 'node:fs'
import { Measurer } from '../analysis/measures/measurer.ts'
import { shrinkRgba } from '../analysis/measures/pictures.ts'
import { USUAL_GRID, writeMeasures } from '../core/measures/measures.ts'
import { Feed } from '../simulation/feed.ts'
import { makeNodeCanvas } from '../simulation/nodeCanvas.ts'
import type { Play } from '../simulation/script.ts'

/**
 * Paints a play and measures its pictures: `measure.ts PLAY.json MEASURES.bin`. Ends when who asked
 * for it has ended.
 */
const [input, output] = process.argv.slice(2) as [string, string]
const play = JSON.parse(readFileSync(input, 'utf8')) as Play
const { width, height, fps } = play.scene
const feed = new Feed(play, makeNodeCanvas)
const measurer = new Measurer(USUAL_GRID, width / 2, height / 2, fps)
const bgr = new Uint8Array((width / 2) * (height / 2) * 3)
process.stdin.on('end', () => process.exit(1)).resume()
for (let n = 1; n <= feed.frames; n++) {
  const frame = feed.frame(n)
  if (frame) shrinkRgba(frame, width, 2, bgr)
  measurer.next(frame && bgr)
  await new Promise((resolve) => setImmediate(resolve))
}
writeFileSync(output, writeMeasures(measurer.finish()))
process.exit(0)
