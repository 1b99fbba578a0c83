import { parentPort, workerData } from 'node:worker_threads'
import { Detector } from '../../analysis/detector/inWorker.ts'
import { loadOpenCv } from '../../analysis/opencv.ts'
import type { LiveFrame } from '../../core/devices/views.ts'
import { InputError } from '../../core/errors.ts'
import { HourWriter } from '../lookBack/hourWriter.ts'
import { PictureWriter } from '../lookBack/pictureFile.ts'
import { PictureTaker } from './pictureTaker.ts'
import { StreamAnalyser, type StreamAnalyserParts } from './streamAnalyser.ts'

/** The thread in which cameras' pictures are analysed; see ownAnalysis.ts for the other end. */
export type ToStreamThread =
  | { type: 'picture'; camera: string; at: number; jpeg: Uint8Array }
  | { type: 'end'; camera: string; at: number }
  | { type: 'close' }
export type FromStreamThread =
  /** A picture has been dealt with; what is in it; null: it has not begun. */
  | { type: 'done'; camera: string; frame: LiveFrame | null }
  /** Of this camera nothing is written any more. */
  | { type: 'ended'; camera: string }
  /** Nothing more is written to that hour's log. */
  | { type: 'hourOver'; camera: string; hour: number }
  | { type: 'failed'; why: string }
  | { type: 'closed' }

const TICK_MS = 250
const FLUSH_MS = 1000
const { folder } = workerData as { folder: string }
const tell = (message: FromStreamThread): void => parentPort!.postMessage(message)
const fail = (error: unknown): void => tell({ type: 'failed', why: String(error) })

const writer = new HourWriter(folder, {
  closed: (camera, hour) => tell({ type: 'hourOver', camera, hour }),
  failed: fail
})
const archive = new PictureWriter(folder)
const pictures = new PictureTaker({
  store: (camera, picture) => archive.add(camera, picture),
  failed: fail
})
const analysers = new Map<string, StreamAnalyser>()
let parts: StreamAnalyserParts | null = null
let detector: Detector | null = null

async function start(): Promise<StreamAnalyserParts> {
  const { cv } = await loadOpenCv()
  try {
    detector = await Detector.start()
  } catch (error) {
    // Without its files classes are those of the shape.
    if (!(error instanceof InputError)) fail(error)
  }
  let told = false
  const withoutDetector = (error: unknown): void => {
    if (!told) fail(error)
    told = true
    if (parts) parts.looks = null
  }
  return (parts = { cv, looks: detector, writer, pictures, withoutDetector })
}
const starting = start()

/** One picture after the other, so that those of a camera stay in order. */
let working: Promise<void> = starting.then(() => {})
const later = (work: () => Promise<void> | void): void => {
  working = working.then(work).catch(fail)
}

async function take(camera: string, at: number, jpeg: Uint8Array): Promise<void> {
  let analyser = analysers.get(camera)
  if (!analyser) {
    analyser = new StreamAnalyser(camera, await starting)
    analysers.set(camera, analyser)
  }
  let frame: LiveFrame | null = null
  try {
    frame = await analyser.next(Buffer.from(jpeg.buffer, jpeg.byteOffset, jpeg.byteLength), at)
  } finally {
    tell({ type: 'done', camera, frame })
  }
}

async function end(camera: string, at: number): Promise<void> {
  analysers.get(camera)?.end(at)
  analysers.delete(camera)
  await archive.done()
  tell({ type: 'ended', camera })
}

const ticking = setInterval(() => pictures.tick(), TICK_MS)
const flushing = setInterval(() => {
  const now = Date.now()
  for (const analyser of analysers.values()) analyser.tick(now)
  writer.flush(now)
}, FLUSH_MS)

async function close(): Promise<void> {
  clearInterval(ticking)
  clearInterval(flushing)
  for (const camera of [...analysers.keys()]) await end(camera, Date.now())
  writer.closeAll(Date.now())
  pictures.close()
  await archive.done()
  await detector?.close()
  tell({ type: 'closed' })
}

parentPort!.on('message', (message: ToStreamThread) => {
  switch (message.type) {
    case 'picture':
      return later(() => take(message.camera, message.at, message.jpeg))
    case 'end':
      return later(() => end(message.camera, message.at))
    case 'close':
      return later(close)
  }
})
