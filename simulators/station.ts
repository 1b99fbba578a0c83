import { createServer, type Socket } from 'node:net'
import type { AddressInfo } from 'node:net'
import { readEvent, readFrame, writeFrame, type Frame, type FrameId } from '../core/formats/dc09.ts'
import { SEVERITIES, type Severity } from '../core/kinds/parts.ts'

export interface StationMessage {
  at: number
  account: string
  /** Null: a heartbeat. */
  code: string | null
  zone: number
  severity: string
  words: string
  sequence: number
  /** What it answered. */
  answer: FrameId | 'nothing'
  /** It had come before, under the same number. */
  again: boolean
}

/** How the station behaves: as it should, silent, slow by some seconds, or refusing everything. */
export type StationMood = 'answers' | 'silent' | 'slow' | 'refuses'

const MAX_KEPT = 20_000
const SLOW_MS = 3000
const MAX_BYTES = 4096

/**
 * A monitoring station on loopback: takes frames of ANSI/SIA DC-09 (core/formats/dc09.ts), confirms them, knows one that
 * comes again by its number, and accepts from a severity up.
 */
export class Station {
  mood: StationMood = 'answers'
  accepts: Severity = 'minor'
  port = 0
  readonly messages: StationMessage[] = []
  private readonly sockets = new Set<Socket>()
  private readonly server = createServer((socket) => this.serve(socket))

  /** `later` does something after so many milliseconds: the clock's, or a test's. */
  constructor(
    private readonly later: (what: () => void, ms: number) => void = (what, ms) =>
      void setTimeout(what, ms)
  ) {}

  async start(): Promise<this> {
    await new Promise<void>((resolve, reject) => {
      this.server.once('error', reject)
      this.server.listen(0, '127.0.0.1', resolve)
    })
    this.port = (this.server.address() as AddressInfo).port
    return this
  }

  async close(): Promise<void> {
    for (const socket of this.sockets) socket.destroy()
    await new Promise((resolve) => this.server.close(resolve))
  }

  private serve(socket: Socket): void {
    this.sockets.add(socket)
    socket.on('close', () => this.sockets.delete(socket))
    socket.on('error', () => {})
    socket.setEncoding('utf8')
    let text = ''
    socket.on('data', (part: string) => {
      text += part
      if (text.length > MAX_BYTES) return void socket.destroy()
      for (let end = text.indexOf('\r'); end >= 0; end = text.indexOf('\r')) {
        const frame = text.slice(0, end + 1)
        text = text.slice(end + 1)
        const answer = this.answerTo(frame)
        if (answer)
          this.later(
            () => socket.writable && socket.write(writeFrame(answer)),
            this.mood === 'slow' ? SLOW_MS : 0
          )
      }
    })
  }

  private answerTo(text: string): Frame | null {
    let frame: Frame
    try {
      frame = readFrame(text)
    } catch {
      return { id: 'NAK', sequence: 0, account: '0', data: '', at: Date.now() }
    }
    const answer = (id: FrameId): Frame => ({
      id,
      sequence: frame.sequence,
      account: frame.account,
      data: '',
      at: null
    })
    const keep = (said: StationMessage['answer'], more: Partial<StationMessage>): void => {
      const again =
        frame.id === 'SIA-DCS' &&
        this.messages.some(
          (m) =>
            m.code !== null &&
            m.answer === 'ACK' &&
            m.account === frame.account &&
            m.sequence === frame.sequence &&
            m.words === more.words
        )
      this.messages.push({
        at: Date.now(),
        account: frame.account,
        code: null,
        zone: 0,
        severity: '',
        words: '',
        sequence: frame.sequence,
        ...more,
        answer: said,
        again
      })
      if (this.messages.length > MAX_KEPT) this.messages.shift()
    }
    const mood = this.mood === 'silent' ? 'nothing' : this.mood === 'refuses' ? 'DUH' : 'ACK'
    if (frame.id === 'NULL') {
      keep(mood, {})
      return mood === 'nothing' ? null : answer(mood)
    }
    try {
      const event = readEvent(frame.data)
      const low =
        (SEVERITIES as readonly string[]).includes(event.severity) &&
        SEVERITIES.indexOf(event.severity as Severity) < SEVERITIES.indexOf(this.accepts)
      const said = mood === 'ACK' && low ? 'DUH' : mood
      keep(said, {
        code: event.code,
        zone: event.zone,
        severity: event.severity,
        words: event.words
      })
      return said === 'nothing' ? null : answer(said)
    } catch {
      return answer('DUH')
    }
  }
}
