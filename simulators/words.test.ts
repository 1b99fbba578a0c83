/** @language pseudo */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, test } from '@jest/globals'
import { unmarked } from '../core/testing/unmarked.ts'

import { Contacts } from './contacts.ts'
import { startDevices } from './devices.ts'
import { DEMO_CONTACTS, startPages } from './pages.ts'
import { startMailbox } from './mailbox.ts'
import { Station } from './station.ts'

const folder = mkdtempSync(join(tmpdir(), 'wardoptic-words-'))
const ended = new AbortController()
const contacts = new Contacts()
const station = await new Station().start()
const mailbox = await startMailbox(join(folder, 'mailbox'))
const demo = new URL('../demo/', import.meta.url)
const devices = await startDevices(folder, demo, ended.signal, contacts)
const pages = await startPages({
  station,
  contacts,
  held: DEMO_CONTACTS,
  devices,
  mailboxPort: mailbox.httpPort
})
afterAll(async () => {
  ended.abort()
  await Promise.all([pages.close(), mailbox.close(), station.close()])
  await Promise.all(devices.map((device) => device.close()))
  rmSync(folder, { recursive: true, force: true })
})

/** What devices and their outputs are called. */
const named = (
  JSON.stringify(JSON.parse(readFileSync(new URL('devices.json', demo), 'utf8'))).match(
    /"name":"[^"]+"/g
  ) ?? []
).map((text) => text.slice(8, -1))

test.each(['station', 'panel', 'outputs', 'hooks', 'mailbox'])(
  'every text of the page /%s comes from core/messages',
  async (page) => {
    station.messages.push({
      at: Date.UTC(2026, 10, 26),
      account: '0001',
      code: 'BA',
      zone: 1,
      sequence: 1,
      severity: 'major',
      words: '',
      answer: 'ACK',
      again: true
    })
    const answer = await fetch(`http://127.0.0.1:${pages.port}/${page}`)
    expect(answer.status).toBe(200)
    const text = (await answer.text())
      .replace(/<(script|style)\b[\s\S]*?<\/\1>/g, ' ')
      .replace(/<!doctype[^>]*>/i, ' ')
      .replace(/<[^>]*>/g, '\n')
    expect(text).toMatch(/⟦/)
    expect(unmarked(text, [...named, '0001', 'BA', 'major'])).toEqual([])
  }
)
