import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { envelope, faultBody, readMessage } from '../../core/formats/onvif/soap.ts'

export type Answers = Readonly<Record<string, string | (() => string)>>

/**
 * A device that answers what is written for it, and nothing else: what it has no answer for it refuses, as real ones do
 * that lack a service. Answers are bodies of SOAP, by the name of the action.
 */
export class PoorDevice {
  readonly asked: string[] = []
  address = ''
  private readonly server: Server
  private readonly answers: Answers

  /** @param fault the code with which it refuses @param files what GET of a path gives */
  constructor(
    answers: Answers,
    {
      fault = 'ter:ActionNotSupported',
      files = {}
    }: { fault?: string; files?: Readonly<Record<string, Buffer>> } = {}
  ) {
    this.answers = answers
    this.server = createServer((request, response) => {
      const parts: Buffer[] = []
      request.on('data', (part: Buffer) => parts.push(part))
      request.on('end', () => {
        if (request.method === 'GET') {
          const file = files[request.url ?? '']
          return void response.writeHead(file ? 200 : 404).end(file)
        }
        const { action } = readMessage(Buffer.concat(parts).toString('utf8'))
        this.asked.push(action.name)
        const answer = this.answers[action.name]
        response
          .writeHead(answer === undefined ? 400 : 200, { 'content-type': 'application/soap+xml' })
          .end(
            answer === undefined
              ? envelope(faultBody('Receiver', fault, 'Optional action not implemented'))
              : typeof answer === 'string'
                ? answer
                : answer()
          )
      })
    })
  }

  async start(): Promise<this> {
    await new Promise<void>((resolve) => this.server.listen(0, '127.0.0.1', resolve))
    this.address = `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`
    return this
  }

  async close(): Promise<void> {
    this.server.closeAllConnections()
    await new Promise((resolve) => this.server.close(resolve))
  }
}
