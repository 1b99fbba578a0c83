import { Failure } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import { connect } from 'node:net'
import { readFrame, writeFrame, type Frame } from '../../core/formats/dc09.ts'
import { Refused } from './refused.ts'

const WITHIN_MS = 5000
const MAX_BYTES = 4096

/**
 * Sends one frame to a monitoring station over TCP and waits for its answer.
 *
 * @throws Refused when the station says that it cannot take it (DUH), Failure when it does not confirm
 */
export async function tellStation(
  { host, port }: { host: string; port: number },
  frame: Frame
): Promise<void> {
  const answer = await new Promise<string>((resolve, reject) => {
    const socket = connect({ host, port })
    let text = ''
    const end = (work: () => void): void => {
      clearTimeout(late)
      socket.destroy()
      work()
    }
    const late = setTimeout(
      () => end(() => reject(new Failure(said('deliveries.stationSlow', WITHIN_MS / 1000)))),
      WITHIN_MS
    )
    socket.setEncoding('utf8')
    socket.on('connect', () => socket.write(writeFrame(frame)))
    socket.on('data', (part: string) => {
      text += part
      if (text.endsWith('\r') || text.length > MAX_BYTES) end(() => resolve(text))
    })
    socket.on('end', () => end(() => reject(new Failure(said('deliveries.stationClosed')))))
    socket.on('error', (error: NodeJS.ErrnoException) =>
      end(() =>
        reject(
          new Failure(
            error.code === 'ECONNREFUSED'
              ? said('deliveries.stationNotListening', host, port)
              : said('deliveries.stationUnreachable', error.message)
          )
        )
      )
    )
  })
  const { id, sequence } = readFrame(answer)
  if (id === 'DUH') throw new Refused(said('deliveries.stationRefused'))
  if (id === 'NAK') throw new Failure(said('deliveries.stationUnreadable'))
  if (id !== 'ACK' || sequence !== frame.sequence)
    throw new Failure(said('deliveries.stationOther', id, String(sequence), String(frame.sequence)))
}
