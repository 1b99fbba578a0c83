import { parentPort } from 'node:worker_threads'
import { Follower, type FromFollower, type ToFollower } from './follower.ts'

/** The thread in which cameras' targets are followed; see memory.ts for the other end. */
const tell = (message: FromFollower): void => parentPort!.postMessage(message)
const follower = new Follower((camera) => tell({ type: 'ended', camera }))

parentPort!.on('message', (message: ToFollower) => {
  if (message.type === 'follow') follower.follow(message.camera, message.source)
  else
    tell({
      type: 'rows',
      id: message.id,
      rows: follower.between(message.camera, message.from, message.to)
    })
})
