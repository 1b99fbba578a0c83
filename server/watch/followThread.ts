import { parentPort, workerData } from 'node:worker_threads'
import { HourWriter } from '../lookBack/hourWriter.ts'
import { Follower, type FromFollower, type ToFollower } from './follower.ts'

/** The thread in which cameras' targets are followed and written; see memory.ts for the other end. */
const FLUSH_MS = 1000
const { folder } = workerData as { folder: string }
const tell = (message: FromFollower): void => parentPort!.postMessage(message)
const writer = new HourWriter(folder, {
  closed: (camera, hour) => tell({ type: 'hourOver', camera, hour }),
  failed: (error) => tell({ type: 'notWritten', why: error.message })
})
const follower = new Follower((camera) => tell({ type: 'ended', camera }), writer)

const flushing = setInterval(() => writer.flush(Date.now()), FLUSH_MS)

parentPort!.on('message', (message: ToFollower) => {
  switch (message.type) {
    case 'follow':
      return follower.follow(message.camera, message.source)
    case 'without':
      return follower.leaveOut(message.cameras)
    case 'between':
      return tell({
        type: 'rows',
        id: message.id,
        rows: follower.between(message.camera, message.from, message.to)
      })
    case 'close':
      clearInterval(flushing)
      writer.closeAll(Date.now())
      return tell({ type: 'closed' })
  }
})
