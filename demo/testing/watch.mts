import { parseWith } from '../../core/schema/parse.ts'
import { Analyser } from '../../analysis/analyser.ts'
import { Measurer } from '../../analysis/measures/measurer.ts'
import { shrinkRgba } from '../../analysis/measures/pictures.ts'
import { loadOpenCv } from '../../analysis/opencv.ts'
import { evaluate, type Setting, type Trigger } from '../../core/detections/index.ts'
import { USUAL_GRID } from '../../core/measures/measures.ts'
import { DetectionSchema } from '../../core/formats/plan.ts'
import { tracksFromRows } from '../../core/targets/tracks.ts'
import { Feed } from '../../simulation/feed.ts'
import { makeNodeCanvas } from '../../simulation/nodeCanvas.ts'
import { readScript, type Play } from '../../simulation/script.ts'
import { readDemo } from '../scenes.ts'

/**
 * Scenes of the demo site, painted, analysed and evaluated at one go, for the tests: reads a list of what to watch
 * from the arguments, prints the triggers of each as a line of JSON. In a process of its own, because OpenCV's
 * WebAssembly does not load in the test runner.
 */
interface Watched {
  camera: string
  script: object
  detections: object[]
  /** Whether targets are needed; they take longer than the measures alone. */
  targets: boolean
}

const settingOf = (list: object[], fps: number): Setting => ({
  plan: { schedules: [], timeZone: 'UTC' },
  camera: {
    ignore: [],
    detections: list.map((d, i) => parseWith(DetectionSchema, { id: `d${i}`, name: `D${i}`, ...d }))
  },
  fps,
  start: 0
})

async function watch({ camera, script, detections, targets }: Watched): Promise<Trigger[]> {
  const play: Play = {
    scene: readDemo(camera).scene,
    script: readScript({ id: 'x', name: 'X', ...script })
  }
  const { width, height, fps } = play.scene
  const size = { width: width / 2, height: height / 2 }
  const feed = new Feed(play, makeNodeCanvas)
  const taker = targets
    ? new Analyser((await loadOpenCv()).cv, size, fps)
    : new Measurer(USUAL_GRID, size.width, size.height, fps)
  const bgr = new Uint8Array(size.width * size.height * 3)
  for (let n = 1; n <= feed.frames; n++) {
    const frame = feed.frame(n)
    if (frame) shrinkRgba(frame, width, 2, bgr)
    taker.next(frame && bgr)
  }
  const { tracks, measures } =
    taker instanceof Analyser
      ? taker.finish()
      : { tracks: tracksFromRows([], fps), measures: taker.finish() }
  if (taker instanceof Analyser) taker.delete()
  return evaluate(settingOf(detections, fps), tracks, measures)
}

for (const item of JSON.parse(process.argv[2]!) as Watched[])
  process.stdout.write(`${JSON.stringify(await watch(item))}\n`)
