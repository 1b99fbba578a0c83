import { severities } from '../core/messages/en/codes/names.ts'
import { pages } from '../core/messages/en/simulators.ts'
import { timeOfDay } from '../core/messages/format.ts'
import { SEVERITIES } from '../core/kinds/parts.ts'
import type { Device } from './camera/device.ts'
import type { Contacts } from './contacts.ts'
import type { Station, StationMood } from './station.ts'

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

/** A webhook that has come. */
export interface Hook {
  at: number
  key: string
  body: string
}

export const MOODS: Record<StationMood, string> = {
  answers: pages.answers,
  silent: pages.doNotAnswer,
  slow: pages.answerAfter3S,
  refuses: pages.rejectEverything
}

const escaped = (text: unknown): string =>
  String(text).replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)
const clock = (at: number): string => timeOfDay(at, 'UTC')

const STYLE = `body{font:15px/1.5 sans-serif;margin:0;background:#f7f5f0;color:#1b2430}header{padding:10px 24px;border-bottom:1px solid #d9d4c8;display:flex;gap:18px}
main{max-width:880px;margin:24px auto;padding:0 24px}a{color:#1f6f5c}button{font:inherit;padding:4px 12px;border:1px solid #8a8f96;border-radius:6px;background:#fff;cursor:pointer}button[aria-pressed=true]{background:#1f6f5c;color:#fff;border-color:#1f6f5c}
form{display:inline}.line{margin:10px 0}table{border-collapse:collapse;width:100%;font-size:14px}td,th{text-align:left;padding:5px 10px;border-bottom:1px solid #e4dfd3;vertical-align:top}.bad{color:#b4451f;font-weight:600}.on{color:#a1246b;font-weight:700}
.lamp{display:inline-block;width:18px;height:18px;border-radius:50%;border:2px solid #1b2430;vertical-align:-4px}.lamp.lit{background:#d98e04}@media(prefers-reduced-motion:no-preference){.slow{animation:f 2s steps(1) infinite}.medium{animation:f 1s steps(1) infinite}.fast{animation:f .4s steps(1) infinite}}@keyframes f{50%{background:#fff}}`

const page = (title: string, body: string): string =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><title>${title}</title><style>${STYLE}</style><header><strong>${pages.simulators}</strong><a href="/station">${pages.station}</a><a href="/panel">${pages.panel}</a><a href="/outputs">${pages.outputs}</a><a href="/mailbox">${pages.mailbox}</a><a href="/hooks">${pages.webhooks}</a></header><script>setInterval(()=>[...document.querySelectorAll('audio')].some(a=>!a.paused)||location.reload(),2000)</script><main><h1>${title}</h1>${body}</main></html>`
const button = (path: string, value: string, words: string, pressed: boolean): string =>
  `<form method="post" action="${path}"><button name="value" value="${value}" aria-pressed="${pressed}">${words}</button></form> `
const table = (heads: string[], rows: string[][]): string =>
  rows.length
    ? `<table><tr>${heads.map((h) => `<th>${h}</th>`).join('')}</tr>${rows.map((r) => `<tr>${r.map((c) => `<td>${c}</td>`).join('')}</tr>`).join('')}</table>`
    : `<p>${pages.nothing}</p>`

export function stationPage({ station }: World): string {
  const moods = Object.entries(MOODS).map(([mood, words]) =>
    button('/station/mood', mood, words, station.mood === mood)
  )
  const accepts = SEVERITIES.map((s) =>
    button('/station/accepts', s, severities[s], station.accepts === s)
  )
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
      m.answer === 'ACK' ? pages.ack(m.again) : `<span class="bad">${pages.nak(m.answer)}</span>`
    ])
  return page(
    pages.station,
    `<div class="line">${pages.whenAnEventArrives} ${moods.join('')}</div><div class="line">${pages.accepts} ${accepts.join('')}</div><p>${pages.received(events.length, beats.length, beats.length ? clock(beats[beats.length - 1]!.at) : null)}</p>${table([pages.utc, pages.account, pages.code, pages.zone, pages.severity, pages.text, pages.answer], rows)}`
  )
}

export function panelPage({ contacts, held }: World): string {
  const rows = held.map(({ name, words, on, off }) => {
    const now = contacts.get(name)
    return [
      escaped(words),
      button(`/contacts/${name}`, 'on', on, now === true) +
        button(`/contacts/${name}`, 'off', off, now === false) +
        button(`/contacts/${name}`, 'free', pages.followsTheScript, now === null)
    ]
  })
  return page(pages.panel, table([pages.contact, pages.state], rows))
}

export function outputsPage({ devices }: World): string {
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
          ? pages.left(Math.round((acting.until - device.now()) / 1000))
          : ''
      return [
        escaped(device.model.name),
        escaped(name),
        `<span class="lamp ${active ? `lit ${escaped(kind === 'strobe' ? acting?.settings.Pattern : '')}` : ''}"></span> ${active ? `<span class="on">${pages.active}</span>${left}` : pages.atRest}`,
        `${settings}${voice}`
      ]
    })
  )
  return page(pages.outputs, table([pages.device, pages.output, pages.now, pages.settings], rows))
}

export const hooksPage = (hooks: readonly Hook[]): string =>
  page(
    pages.webhooks,
    table(
      [pages.utc, pages.key, pages.body],
      hooks
        .slice(-50)
        .reverse()
        .map((h) => [clock(h.at), escaped(h.key), `<code>${escaped(h.body.slice(0, 600))}</code>`])
    )
  )

export async function mailPage({ mailboxPort }: World): Promise<string> {
  const mails = (await (await fetch(`http://127.0.0.1:${mailboxPort}/messages/`)).json()) as {
    subject: string
    to: string
    receivedAt: number
    pictures: number
  }[]
  return page(
    pages.mailbox,
    table(
      [pages.utc, pages.to, pages.subject, pages.pictures],
      mails.map((m) => [clock(m.receivedAt), escaped(m.to), escaped(m.subject), String(m.pictures)])
    )
  )
}
