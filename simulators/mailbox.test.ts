import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { createTransport } from 'nodemailer'
import { startMailbox, type Mailbox } from './mailbox.ts'

let folder: string
let mailbox: Mailbox
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'wardoptic-mailbox-'))
  mailbox = await startMailbox(folder)
})
afterAll(async () => {
  await mailbox.close()
  rmSync(folder, { recursive: true, force: true })
})

const send = (
  subject: string,
  attachments: { filename: string; content: Buffer | string; contentType: string }[] = []
) =>
  createTransport({ host: '127.0.0.1', port: mailbox.smtpPort, ignoreTLS: true }).sendMail({
    from: 'a@x.example',
    to: 'b@y.example',
    subject,
    text: 'Hällo',
    attachments
  })
const ask = (path: string) => fetch(`http://127.0.0.1:${mailbox.httpPort}${path}`)

test('lists mails received by SMTP, newest first, with attachments', async () => {
  await send('First')
  await send('Second', [
    { filename: 'p.png', content: Buffer.from([1, 2, 3]), contentType: 'image/png' },
    { filename: 'page.html', content: '<script>alert(1)</script>', contentType: 'text/html' }
  ])
  const list = (await (await ask('/messages/')).json()) as {
    id: string
    subject: string
    pictures: number
  }[]
  expect(list.map((m) => [m.subject, m.pictures])).toEqual([
    ['Second', 1],
    ['First', 0]
  ])
  expect(await (await ask(`/messages/${list[0]!.id}`)).json()).toMatchObject({
    from: 'a@x.example',
    to: 'b@y.example',
    text: expect.stringContaining('Hällo'),
    attachments: [{ name: 'p.png', type: 'image/png', bytes: 3 }, { name: 'page.html' }]
  })
  const picture = await ask(`/messages/${list[0]!.id}/0`)
  expect([picture.headers.get('content-type'), (await picture.arrayBuffer()).byteLength]).toEqual([
    'image/png',
    3
  ])
  // Nothing that could run in the application's page is served as what it is.
  expect((await ask(`/messages/${list[0]!.id}/1`)).headers.get('content-type')).toBe(
    'application/octet-stream'
  )
})

test('answers 404 for unknown mails and paths outside the folder', async () => {
  for (const path of ['/', '/messages/none', '/messages/..%2F..%2Fetc%2Fpasswd', '/elsewhere'])
    expect((await ask(path)).status).toBe(404)
})

test('refuses a message that is too large and keeps nothing of it', async () => {
  const before = readdirSync(folder).length
  await expect(
    send('Huge', [
      {
        filename: 'x.bin',
        content: Buffer.alloc(21 * 2 ** 20),
        contentType: 'application/octet-stream'
      }
    ])
  ).rejects.toThrowWords(/552|size|large/i)
  expect(readdirSync(folder)).toHaveLength(before)
})
