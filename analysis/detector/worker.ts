import { parentPort } from 'node:worker_threads'
import { InputError } from '../../core/errors.ts'
import { FaceDetector } from './faces.ts'
import type { Answer, Question } from './inWorker.ts'
import { ObjectDetector } from './objects.ts'

/** The detector in a thread of its own, beside the tracker; see inWorker.ts for the other end. */
const tell = (answer: Answer): void => parentPort!.postMessage(answer)
try {
  const [objects, faces] = [await ObjectDetector.load(), await FaceDetector.load()]
  parentPort!.on('message', (question: Question) => {
    const { id } = question
    try {
      if (question.what === 'objects') tell({ type: 'seen', id, seen: objects.look(question.rgb) })
      else {
        const { picture, size, tiles } = question
        tell({ type: 'faces', id, seen: faces.look(picture, size, tiles) })
      }
    } catch (error) {
      tell({ type: 'failed', message: (error as Error).stack ?? String(error) })
    }
  })
  tell({ type: 'ready' })
} catch (error) {
  if (error instanceof InputError) tell({ type: 'missing', said: error.said })
  else tell({ type: 'failed', message: (error as Error).stack ?? String(error) })
}
