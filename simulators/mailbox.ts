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
import fastify from 'fastify'
import { join } from 'node:path'
import type { AddressInfo } from 'node:net'
import type { ParsedMail } from 'mailparser'
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

const listen = (server: SMTPServer['server'], port: number): Promise<number> =>
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
    if (!/^[\w-]+$/.test(id) || !existsSync(file)) return null
    // A quarter of a second of every start, for the first mail that is read.
    const { simpleParser } = await import('mailparser')
    return simpleParser(readFileSync(file))
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

  const http = fastify({ forceCloseConnections: true })
  http.get('/messages/', list)
  http.get<{ Params: { id: string } }>('/messages/:id', async ({ params: { id } }, reply) => {
    const mail = await read(id)
    if (!mail) return reply.code(404).send({})
    const view: MailView = {
      ...summaryOf(id, mail, receivedAt(id)),
      text: mail.text ?? '',
      attachments: mail.attachments.map((a) => ({
        name: a.filename ?? 'attachment',
        type: a.contentType,
        bytes: a.size
      }))
    }
    return view
  })
  http.get<{ Params: { id: string; part: string } }>(
    '/messages/:id/:part',
    async ({ params: { id, part } }, reply) => {
      const attachment = (await read(id))?.attachments[Number(part)]
      if (!attachment) return reply.code(404).send({})
      // Only pictures are shown as what they are; anything else must not run in the application's page.
      const type = /^image\/(jpeg|png)$/.test(attachment.contentType)
        ? attachment.contentType
        : 'application/octet-stream'
      return reply.type(type).send(attachment.content)
    }
  )
  await http.listen({ port: 0, host: '127.0.0.1' })

  return {
    smtpPort: await listen(smtp.server, 0),
    httpPort: (http.server.address() as AddressInfo).port,
    close: async () => {
      await Promise.all([http.close(), new Promise<void>((resolve) => smtp.close(() => resolve()))])
    }
  }
}
