import { parentPort, workerData } from 'node:worker_threads'
import { said } from '../../core/messages/said.ts'
import { DeviceError } from '../devices/link/deviceError.ts'
import { HourWriter } from '../lookBack/hourWriter.ts'
import { PictureWriter } from '../lookBack/pictureFile.ts'
import { CameraPictures } from './cameraPictures.ts'
import { Follower, type FromFollower, type ToFollower } from './follower.ts'
import { yieldToOthers } from '../threadPriority.ts'

/** The thread in which cameras' targets are followed and written; see memory.ts for the other end. */
const FLUSH_MS = 1000
/** Whether cameras need a picture. */
const LOOK_MS = 250
const { folder } = workerData as { folder: string }
yieldToOthers()
const tell = (message: FromFollower): void => parentPort!.postMessage(message)
const writer = new HourWriter(folder, {
  closed: (camera, hour) => tell({ type: 'hourOver', camera, hour }),
  failed: (error) => tell({ type: 'notWritten', why: error.message })
})
const archive = new PictureWriter(folder)
/** Pictures that the other end was asked for, by the number of the question. */
const asked = new Map<number, (answer: Extract<ToFollower, { type: 'picture' }>) => void>()
let questions = 0
const pictures = new CameraPictures({
  store: (camera, picture) => archive.add(camera, picture),
  failed: (error) => tell({ type: 'notWritten', why: error.message }),
  fromStream: (camera) =>
    new Promise((resolve, reject) => {
      const id = questions++
      asked.set(id, ({ jpeg, isRefused }) =>
        jpeg
          ? resolve(Buffer.from(jpeg))
          : reject(new DeviceError(isRefused ? 'refused' : 'offline', said('devices.noPicture')))
      )
      tell({ type: 'picture', id, camera })
    })
})
const follower = new Follower((camera) => tell({ type: 'ended', camera }), writer, pictures)

const flushing = setInterval(() => writer.flush(Date.now()), FLUSH_MS)
const looking = setInterval(() => pictures.tick(), LOOK_MS)

parentPort!.on('message', (message: ToFollower) => {
  switch (message.type) {
    case 'follow':
      return follower.follow(message.camera, message.source)
    case 'without':
      follower.leaveOut(message.cameras)
      return void archive.done().then(() => tell({ type: 'leftOut', id: message.id }))
    case 'between':
      return tell({
        type: 'rows',
        id: message.id,
        rows: follower.between(message.camera, message.from, message.to)
      })
    case 'picture': {
      asked.get(message.id)?.(message)
      return void asked.delete(message.id)
    }
    case 'close':
      clearInterval(flushing)
      clearInterval(looking)
      writer.closeAll(Date.now())
      // A picture that is under way is let go; one that is being written is written.
      pictures.close()
      return void archive.done().then(() => tell({ type: 'closed' }))
  }
})
