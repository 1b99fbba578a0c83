import { CLASSES } from '../../core/targets/classes.ts'
import { Analyser } from '../analyser.ts'
import { analysedSize, decodeFrames } from '../frames.ts'
import { LiveAnalyser, type LiveRow } from '../live.ts'
import { loadOpenCv } from '../opencv.ts'
import { probe } from '../probe.ts'

/**
 * What is found in a clip as a whole, and in the same pictures as a stream: OpenCV does not load in the test runner.
 *
 * streams.mts CLIP SECONDS [EVERY[:CUT] …]: prints JSON; a stream's rows are taken every so many pictures, its targets are
 * ended before the picture CUT.
 */
const [clip = '', seconds = '', ...streams] = process.argv.slice(2)
const { cv } = await loadOpenCv()

async function ofClip(): Promise<object> {
  const footage = await probe(clip)
  const size = analysedSize(footage)
  const frames = decodeFrames(clip, footage, size)
  const analyser = new Analyser(cv, size, footage.fps)
  const pictures: Uint8Array[] = []
  for await (const { picture } of frames) {
    pictures.push(picture.slice())
    analyser.next(picture)
    if (pictures.length === Number(seconds) * footage.fps) break
  }
  frames.stop()
  const { id, frame, x, y, w, h, cls } = analyser.finish().tracks
  const told = []
  for (const stream of streams) {
    const [every = 0, cut] = stream.split(':').map(Number)
    const live = new LiveAnalyser(cv, size, footage.fps, null)
    const rows: LiveRow[] = []
    for (const [i, picture] of pictures.entries()) {
      if (i === cut) live.endTargets()
      await live.next(picture, null)
      if (i % every === every - 1) rows.push(...live.take())
    }
    live.endTargets()
    told.push([...rows, ...live.take()])
  }
  const clipRows = Array.from(id, (n, i) => ({
    ...{ id: n, frame: frame[i], x: x[i], y: y[i], w: w[i], h: h[i], class: CLASSES[cls[i]!] }
  }))
  return { clip: clipRows, streams: told }
}

/** A square that goes to and fro for three minutes, never as bright as before, so that it becomes no background. */
async function toAndFro(): Promise<object> {
  const size = { width: 160, height: 120 }
  const live = new LiveAnalyser(cv, size, 10, null)
  const rows: LiveRow[] = []
  for (let k = 0; k < 1800; k++) {
    const picture = new Uint8Array(size.width * size.height * 3).fill(90)
    const left = 20 + Math.round(50 * (1 + Math.sin(k / 15)))
    if (k > 100)
      for (let y = 50; y < 80; y++)
        picture.fill(
          150 + ((37 * k) % 100),
          3 * (y * size.width + left),
          3 * (y * size.width + left + 14)
        )
    await live.next(picture, null)
    if (k % 20 === 19) rows.push(...live.take())
  }
  return { rows, inSight: live.inSight }
}

process.stdout.write(JSON.stringify({ ...(await ofClip()), square: await toAndFro() }))
