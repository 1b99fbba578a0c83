import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Device } from './camera/device.ts'
import type { Contacts } from './contacts.ts'
import { InputError } from '../core/errors.ts'
import { LiveWalks } from './walks.ts'
import type { Station, StationMood } from './station.ts'
import { SEVERITIES, type Severity } from '../core/kinds/parts.ts'

/** What the pages show and operate. */
export interface World {
  station: Station
  contacts: Contacts
  /** Contacts that can be held by hand: an alarm panel, a door. */
  held: { name: string; words: string; on: string; off: string }[]
  devices: readonly Device[]
  /** Of the mailbox. */
  mailboxPort: number
}

interface Hook {
  at: number
  key: string
  body: string
}

const MAX_HOOK_BYTES = 1 << 20
const MOODS: Record<StationMood, string> = {
  answers: 'answers',
  silent: 'is silent',
  slow: 'is slow (3 s)',
  refuses: 'refuses everything'
}

const escaped = (text: unknown): string =>
  String(text).replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)
const clock = (at: number): string => new Date(at).toISOString().slice(11, 19)

const STYLE = `body{font:15px/1.5 sans-serif;margin:0;background:#f7f5f0;color:#1b2430}header{padding:10px 24px;border-bottom:1px solid #d9d4c8;display:flex;gap:18px}
main{max-width:880px;margin:24px auto;padding:0 24px}a{color:#1f6f5c}button{font:inherit;padding:4px 12px;border:1px solid #8a8f96;border-radius:6px;background:#fff;cursor:pointer}button[aria-pressed=true]{background:#1f6f5c;color:#fff;border-color:#1f6f5c}
form{display:inline}.line{margin:10px 0}table{border-collapse:collapse;width:100%;font-size:14px}td,th{text-align:left;padding:5px 10px;border-bottom:1px solid #e4dfd3;vertical-align:top}.bad{color:#b4451f;font-weight:600}.on{color:#a1246b;font-weight:700}
.lamp{display:inline-block;width:18px;height:18px;border-radius:50%;border:2px solid #1b2430;vertical-align:-4px}.lamp.lit{background:#d98e04}@media(prefers-reduced-motion:no-preference){.slow{animation:f 2s steps(1) infinite}.medium{animation:f 1s steps(1) infinite}.fast{animation:f .4s steps(1) infinite}}@keyframes f{50%{background:#fff}}`

const page = (title: string, body: string): string =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><title>${title}</title><style>${STYLE}</style><header><strong>Stand-ins</strong><a href="/station">Monitoring station</a><a href="/panel">Alarm panel and contacts</a><a href="/outputs">Outputs</a><a href="/mailbox">Mailbox</a><a href="/hooks">Webhooks</a></header><script>setInterval(()=>[...document.querySelectorAll('audio')].some(a=>!a.paused)||location.reload(),2000)</script><main><h1>${title}</h1>${body}</main></html>`
const button = (path: string, value: string, words: string, pressed: boolean): string =>
  `<form method="post" action="${path}"><button name="value" value="${value}" aria-pressed="${pressed}">${words}</button></form> `
const table = (heads: string[], rows: string[][]): string =>
  rows.length
    ? `<table><tr>${heads.map((h) => `<th>${h}</th>`).join('')}</tr>${rows.map((r) => `<tr>${r.map((c) => `<td>${c}</td>`).join('')}</tr>`).join('')}</table>`
    : '<p>Nothing yet.</p>'

function stationPage({ station }: World): string {
  const moods = Object.entries(MOODS).map(([mood, words]) =>
    button('/station/mood', mood, words, station.mood === mood)
  )
  const accepts = SEVERITIES.map((s) => button('/station/accepts', s, s, station.accepts === s))
  const events = station.messages.filter((m) => m.code !== null)
  const beats = station.messages.filter((m) => m.code === null)
  const rows = events
    .slice(-50)
    .reverse()
    .map((m) => [
      clock(m.at),
      escaped(m.account),
      escaped(m.code),
      escaped(m.zone),
      escaped(m.severity),
      escaped(m.words),
      m.answer === 'ACK'
        ? `ACK${m.again ? ' (came again)' : ''}`
        : `<span class="bad">${m.answer}</span>`
    ])
  return page(
    'Monitoring station',
    `<div class="line">It ${moods.join('')}</div><div class="line">It accepts from ${accepts.join('')}up.</div><p>${events.length} events, ${beats.length} heartbeats${beats.length ? `, the last at ${clock(beats[beats.length - 1]!.at)} UTC` : ''}.</p>${table(['UTC', 'Account', 'Code', 'Zone', 'Severity', 'Text', 'Answer'], rows)}`
  )
}

function panelPage({ contacts, held }: World): string {
  const rows = held.map(({ name, words, on, off }) => {
    const now = contacts.get(name)
    return [
      escaped(words),
      button(`/contacts/${name}`, 'on', on, now === true) +
        button(`/contacts/${name}`, 'off', off, now === false) +
        button(`/contacts/${name}`, 'free', 'follows the script', now === null)
    ]
  })
  return page('Alarm panel and contacts', table(['Contact', 'Is'], rows))
}

function outputsPage({ devices }: World): string {
  const rows = devices.flatMap((device) =>
    device.outputs.list.map(({ token, kind, name }) => {
      const acting = device.outputs.act(token)
      const active = device.outputs.isActive(token, device.now())
      const settings = acting
        ? Object.entries(acting.settings)
            .map(([k, v]) => `${escaped(k)} ${escaped(v)}`)
            .join(', ')
        : ''
      const voice = acting?.voice
        ? `<br><audio controls preload="none" src="/outputs/${device.model.id}/${token}.wav"></audio>`
        : ''
      const left =
        active && acting && Number.isFinite(acting.until)
          ? `, ${((acting.until - device.now()) / 1000).toFixed(0)} s more`
          : ''
      return [
        escaped(device.model.name),
        escaped(name),
        `<span class="lamp ${active ? `lit ${escaped(kind === 'strobe' ? acting?.settings.Pattern : '')}` : ''}"></span> ${active ? `<span class="on">active</span>${left}` : 'at rest'}`,
        `${settings}${voice}`
      ]
    })
  )
  return page('Outputs', table(['Device', 'Output', 'Now', 'Set off with'], rows))
}

const hooksPage = (hooks: readonly Hook[]): string =>
  page(
    'Webhooks',
    table(
      ['UTC', 'Key', 'Body'],
      hooks
        .slice(-50)
        .reverse()
        .map((h) => [clock(h.at), escaped(h.key), `<code>${escaped(h.body.slice(0, 600))}</code>`])
    )
  )

async function mailPage({ mailboxPort }: World): Promise<string> {
  const mails = (await (await fetch(`http://127.0.0.1:${mailboxPort}/messages/`)).json()) as {
    subject: string
    to: string
    receivedAt: number
    pictures: number
  }[]
  return page(
    'Mailbox',
    table(
      ['UTC', 'To', 'Subject', 'Pictures'],
      mails.map((m) => [clock(m.receivedAt), escaped(m.to), escaped(m.subject), String(m.pictures)])
    )
  )
}

async function bodyOf(request: IncomingMessage): Promise<string> {
  const parts: Buffer[] = []
  let bytes = 0
  for await (const part of request as AsyncIterable<Buffer>) {
    bytes += part.length
    if (bytes > MAX_HOOK_BYTES) throw new Error('too large')
    parts.push(part)
  }
  return Buffer.concat(parts).toString('utf8')
}

/**
 * Small pages on loopback to see and operate the stand-ins; `/hooks` takes webhooks, `/state` says
 * everything as JSON.
 */
export async function startPages(world: World): Promise<{ port: number; close(): Promise<void> }> {
  const hooks: Hook[] = []
  const walks = new LiveWalks(world.devices, world.contacts)
  const operate = async (
    path: string,
    request: IncomingMessage,
    response: ServerResponse
  ): Promise<void> => {
    const body = await bodyOf(request)
    const back = (to: string): void => void response.writeHead(303, { location: to }).end()
    if (path === '/hooks' || path === '/hook') {
      hooks.push({ at: Date.now(), key: String(request.headers['idempotency-key'] ?? ''), body })
      return void response.writeHead(204).end()
    }
    const [, camera, does] = /^\/scenes\/([\w-]+)\/(walk|end)$/.exec(path) ?? []
    if (camera) return walk(camera, does === 'walk' ? body : null, response)
    const value = new URLSearchParams(body).get('value') ?? ''
    if (path === '/station/mood' && Object.hasOwn(MOODS, value))
      world.station.mood = value as StationMood
    else if (path === '/station/accepts' && (SEVERITIES as readonly string[]).includes(value))
      world.station.accepts = value as Severity
    else {
      const contact = world.held.find(({ name }) => path === `/contacts/${name}`)
      if (!contact || !['on', 'off', 'free'].includes(value))
        return void response.writeHead(404).end()
      world.contacts.hold(contact.name, value === 'free' ? null : value === 'on')
      return back('/panel')
    }
    back('/station')
  }
  const walk = async (
    camera: string,
    order: string | null,
    response: ServerResponse
  ): Promise<void> => {
    const say = (status: number, what: object): void =>
      void response
        .writeHead(status, { 'content-type': 'application/json' })
        .end(JSON.stringify(what))
    try {
      const began =
        order === null ? (walks.end(camera), 0) : await walks.begin(camera, JSON.parse(order))
      say(
        began === null ? 404 : 200,
        began === null ? { message: `no simulated device looks at ${camera}` } : { began }
      )
    } catch (error) {
      if (!(error instanceof InputError) && !(error instanceof SyntaxError)) throw error
      say(422, { message: error.message })
    }
  }
  const show = async (path: string, response: ServerResponse): Promise<void> => {
    const html = (text: string): void =>
      void response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(text)
    if (path === '/' || path === '/station') return html(stationPage(world))
    if (path === '/panel') return html(panelPage(world))
    if (path === '/outputs') return html(outputsPage(world))
    if (path === '/mailbox') return html(await mailPage(world))
    if (path === '/hooks') return html(hooksPage(hooks))
    if (path === '/state') {
      const outputs = world.devices.flatMap((d) =>
        d.outputs.list.map(({ token }) => ({
          device: d.model.id,
          token,
          active: d.outputs.isActive(token, d.now()),
          settings: d.outputs.act(token)?.settings ?? null
        }))
      )
      return void response.writeHead(200, { 'content-type': 'application/json' }).end(
        JSON.stringify({
          station: {
            mood: world.station.mood,
            accepts: world.station.accepts,
            messages: world.station.messages
          },
          outputs,
          hooks,
          recordings: world.devices.flatMap((d) =>
            d.recordings.all().map((r) => ({ device: d.model.id, ...r }))
          )
        })
      )
    }
    const [, device, token = ''] = /^\/outputs\/([\w-]+)\/([\w-]+)\.wav$/.exec(path) ?? []
    const voice = world.devices.find((d) => d.model.id === device)?.outputs.act(token)?.voice
    if (!voice) return void response.writeHead(404).end()
    response.writeHead(200, { 'content-type': 'audio/wav', 'cache-control': 'no-store' }).end(voice)
  }
  const server = createServer((request, response) => {
    const { pathname } = new URL(request.url ?? '/', 'http://x')
    const work =
      request.method === 'POST' ? operate(pathname, request, response) : show(pathname, response)
    work.catch(
      () => void (response.headersSent ? response.destroy() : response.writeHead(500).end())
    )
  })
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(0, '127.0.0.1', resolve)
  })
  return {
    port: (server.address() as AddressInfo).port,
    close: async () => {
      walks.close()
      server.closeAllConnections()
      await new Promise((resolve) => server.close(resolve))
    }
  }
}

/** The contacts of the demo site. */
export const DEMO_CONTACTS: World['held'] = [
  { name: 'panel', words: 'Alarm panel', on: 'set', off: 'unset' },
  { name: 'door', words: 'Waiting room door', on: 'closed', off: 'open' }
]
