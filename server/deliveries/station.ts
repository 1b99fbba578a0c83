import { connect } from 'node:net'
import { readFrame, writeFrame, type Frame } from '../../core/formats/dc09.ts'
import { Refused } from './refused.ts'

const WITHIN_MS = 5000
const MAX_BYTES = 4096

/**
 * Sends one frame to a monitoring station over TCP and waits for its answer.
 *
 * @throws Refused when the station says that it cannot take it (DUH), Error when it does not confirm
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
      () => end(() => reject(new Error(`the station did not answer within ${WITHIN_MS / 1000} s`))),
      WITHIN_MS
    )
    socket.setEncoding('utf8')
    socket.on('connect', () => socket.write(writeFrame(frame)))
    socket.on('data', (part: string) => {
      text += part
      if (text.endsWith('\r') || text.length > MAX_BYTES) end(() => resolve(text))
    })
    socket.on('end', () =>
      end(() => reject(new Error('the station closed the connection without an answer')))
    )
    socket.on('error', (error: NodeJS.ErrnoException) =>
      end(() =>
        reject(
          new Error(
            error.code === 'ECONNREFUSED'
              ? `nothing listens at ${host}:${port}`
              : `the station cannot be reached: ${error.message}`
          )
        )
      )
    )
  })
  const { id, sequence } = readFrame(answer)
  if (id === 'DUH')
    throw new Refused('the station refused it: it does not accept this account, code or severity')
  if (id === 'NAK') throw new Error('the station could not read it, or its clock differs too much')
  if (id !== 'ACK' || sequence !== frame.sequence)
    throw new Error(`the station answered ${id} ${sequence}, not ACK ${frame.sequence}`)
}
