import { randomUUID } from 'node:crypto'
import {
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  statSync,
  writeFileSync
} from 'node:fs'
import { createServer, type Server } from 'node:http'
import { join } from 'node:path'
import type { AddressInfo } from 'node:net'
import { simpleParser, type ParsedMail } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import type { MailSummary, MailView } from '../core/api.ts'

/**
 * A mailbox on loopback: takes any mail by SMTP, keeps it as a file, and shows it over HTTP
 * (`/messages/`, `/messages/ID`, `/messages/ID/N` for its N-th attachment).
 */
export interface Mailbox {
  smtpPort: number
  httpPort: number
  close(): Promise<void>
}

const MAX_BYTES = 20 * 2 ** 20

const addresses = (value: ParsedMail['to']): string =>
  [value ?? []]
    .flat()
    .map((a) => a.text)
    .join(', ')

const summaryOf = (id: string, mail: ParsedMail, receivedAt: number): MailSummary => ({
  id,
  from: mail.from?.text ?? '',
  to: addresses(mail.to),
  subject: mail.subject ?? '',
  receivedAt,
  pictures: mail.attachments.filter((a) => a.contentType.startsWith('image/')).length
})

const listen = (server: Server | SMTPServer['server'], port: number): Promise<number> =>
  new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', () => resolve((server.address() as AddressInfo).port))
  })

export async function startMailbox(folder: string): Promise<Mailbox> {
  mkdirSync(folder, { recursive: true })
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    size: MAX_BYTES,
    onData(stream, _session, done) {
      const parts: Buffer[] = []
      stream.on('data', (part: Buffer) => parts.push(part))
      stream.on('end', () => {
        if (stream.sizeExceeded)
          return done(Object.assign(new Error('the message is too large'), { responseCode: 552 }))
        // Named by its moment, so that the files are in order; written whole or not at all.
        const id = `${Date.now()}-${randomUUID()}`
        writeFileSync(join(folder, `${id}.part`), Buffer.concat(parts))
        renameSync(join(folder, `${id}.part`), join(folder, `${id}.eml`))
        done()
      })
    }
  })
  smtp.on('error', () => {})

  const read = async (id: string): Promise<ParsedMail | null> => {
    const file = join(folder, `${id}.eml`)
    return /^[\w-]+$/.test(id) && existsSync(file) ? simpleParser(readFileSync(file)) : null
  }
  const receivedAt = (id: string): number => statSync(join(folder, `${id}.eml`)).mtimeMs
  const list = async (): Promise<MailSummary[]> => {
    const ids = readdirSync(folder)
      .filter((f) => f.endsWith('.eml'))
      .map((f) => f.slice(0, -4))
      .sort()
      .reverse()
      .slice(0, 200)
    return Promise.all(ids.map(async (id) => summaryOf(id, (await read(id))!, receivedAt(id))))
  }

  const http = createServer((request, response) => {
    const json = (status: number, body: unknown): void =>
      void response
        .writeHead(status, { 'content-type': 'application/json' })
        .end(JSON.stringify(body))
    const answer = async (): Promise<void> => {
      const [place, id, part] = new URL(request.url ?? '/', 'http://x').pathname
        .split('/')
        .filter(Boolean)
      if (place !== 'messages') return json(404, {})
      if (!id) return json(200, await list())
      const mail = await read(id)
      if (!mail) return json(404, {})
      if (part !== undefined) {
        const attachment = mail.attachments[Number(part)]
        if (!attachment) return json(404, {})
        // Only pictures are shown as what they are; anything else must not run in the application's page.
        const type = /^image\/(jpeg|png)$/.test(attachment.contentType)
          ? attachment.contentType
          : 'application/octet-stream'
        response.writeHead(200, { 'content-type': type }).end(attachment.content)
        return
      }
      const view: MailView = {
        ...summaryOf(id, mail, receivedAt(id)),
        text: mail.text ?? '',
        attachments: mail.attachments.map((a) => ({
          name: a.filename ?? 'attachment',
          type: a.contentType,
          bytes: a.size
        }))
      }
      json(200, view)
    }
    answer().catch((error: Error) => json(500, { message: error.message }))
  })

  return {
    smtpPort: await listen(smtp.server, 0),
    httpPort: await listen(http, 0),
    close: async () => {
      http.closeAllConnections()
      await Promise.all([
        new Promise((resolve) => http.close(resolve)),
        new Promise<void>((resolve) => smtp.close(() => resolve()))
      ])
    }
  }
}
