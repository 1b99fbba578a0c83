import { request as ask } from 'node:http'
import type { DeclaredRoute } from '../../api/plugin.ts'
import { cookieOf } from '../session.ts'
import type { TestApp } from '../testApp.ts'
import { Chance } from './chance.ts'
import { fuzzImporter } from './importers.ts'
import { like, mangled, nasty, nastyText } from './values.ts'

const ANSWERS_WITHIN_MS = 20_000
/** A reader of texts that takes longer would be felt by everybody. */
const READS_WITHIN_MS = 3000
const AT_ONCE = 8
const CAMERAS = ['slipway', 'quay-path', 'waiting-room']
const KNOWN = [
  ...CAMERAS,
  'quay-edge',
  'path-crossing',
  'dark-hours',
  'strobe-mast',
  'ines',
  'panel',
  'recorder',
  'cam-slipway',
  '1',
  '2'
]

/** Routes that work for long, or wait for what is not there: asked seldom. */
const SLOW =
  /\/devices\/find|\/proving\/(runs|take|propose)|\/walk|made-clips|\/test$|\/sendings|\/devices$|\/read$|\/account$/
/** A calendar for the reader that runs in a thread. */
const CALENDAR =
  'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART;TZID=Europe/London:20261127T220000\r\nDTEND;TZID=Europe/London:20261128T060000\r\nRRULE:FREQ=WEEKLY;INTERVAL=1;BYDAY=MO,TU\r\nEXDATE;TZID=Europe/London:20261224T220000\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n'

export interface FuzzReport {
  inputs: number
  /** How often each status was answered. */
  statuses: Record<string, number>
  problems: { what: string; problem: string }[]
}

/**
 * Asks every route, and reads with every importer, what nobody would: as installer, operator, viewer and nobody. A
 * server error, an answer that does not come, or a reader that throws anything but a refusal is a problem.
 *
 * @param seed the same seed asks the same
 */
export async function fuzz(
  t: TestApp,
  inputs: number,
  seed: number,
  say: (words: string) => void = () => {}
): Promise<FuzzReport> {
  const report: FuzzReport = { inputs: 0, statuses: {}, problems: [] }
  const c = new Chance(seed)
  const known = [...KNOWN]
  const cookies = { installer: '', operator: '', viewer: '', nobody: '' }
  let signing: Promise<void> | null = null
  const signIn = (): Promise<void> =>
    // Several at once are one.
    (signing ??= (async () => {
      for (const role of ['installer', 'operator', 'viewer'] as const)
        cookies[role] = await cookieOf(t.database, role)
    })().finally(() => (signing = null)))
  await signIn()
  for (const { id } of await t.database.rows<{ id: string }>(
    'SELECT id FROM clip UNION SELECT id FROM device UNION SELECT id FROM schedule UNION SELECT id FROM endpoint UNION SELECT id FROM detection'
  ))
    known.push(id)
  const routes = t.app.routes.filter(({ url }) => !/\/live|\/stream/.test(url))
  const one = async (): Promise<void> => {
    report.inputs++
    if (c.is(0.35)) {
      const found = fuzzImporter(c, READS_WITHIN_MS)
      if (found)
        report.problems.push({
          what: `${found.name} of ${JSON.stringify(found.input.slice(0, 300))}`,
          problem: found.problem
        })
      return
    }
    const route = c.of(routes)
    if (SLOW.test(route.url) && !c.is(0.03)) return
    const asked = requestFor(
      route,
      c,
      known,
      c.is(0.85) ? cookies.installer : c.of([cookies.operator, cookies.viewer, cookies.nobody])
    )
    const what = `${asked.method} ${asked.path.slice(0, 200)} ${asked.body === null ? '' : asked.body.toString('utf8').slice(0, 300)}`
    const status = await send(t.address, asked).catch((error: Error) => error.message)
    report.statuses[status] = (report.statuses[status] ?? 0) + 1
    // Sessions end: that is what some of the routes are for.
    if (status === 401 && asked.headers.cookie === cookies.installer) await signIn()
    if (typeof status === 'string' || status >= 500)
      report.problems.push({ what, problem: String(status) })
  }
  const worker = async (): Promise<void> => {
    while (report.inputs < inputs && report.problems.length < 50) {
      await one()
      if (report.inputs % 5000 === 0)
        say(`${report.inputs} inputs, ${report.problems.length} problems`)
    }
  }
  await Promise.all(Array.from({ length: AT_ONCE }, worker))
  return report
}

interface Asked {
  method: string
  path: string
  headers: Record<string, string>
  body: Buffer | null
}

function requestFor(
  route: DeclaredRoute,
  c: Chance,
  known: readonly string[],
  cookie: string
): Asked {
  const part = (name: string): string =>
    c.is(name === ':site' ? 0.97 : 0.85)
      ? name === ':camera'
        ? c.of(CAMERAS)
        : name === ':site'
          ? 'skerrow'
          : c.is(0.3)
            ? String(c.below(20))
            : c.of(known)
      : nastyText(c)
  const coded = (text: string): string =>
    c.is(0.95)
      ? encodeURIComponent(wellFormed(text))
      : encodeURI(wellFormed(text)).replace(/[^\x21-\x7e]/g, '')
  let path = route.url.replace(/:\w+|\*/g, (name) => coded(part(name)))
  const { querystring, body } = route.schema
  if (querystring || c.is(0.1)) {
    const query = querystring
      ? (like(querystring, c, known, 0.1) as Record<string, unknown>)
      : { [nastyText(c).slice(0, 20)]: nasty(c) }
    const pairs = Object.entries(query && typeof query === 'object' ? query : {}).map(
      ([k, v]) => `${coded(k)}=${coded(typeof v === 'string' ? v : (JSON.stringify(v) ?? ''))}`
    )
    if (c.is(0.05)) pairs.push(...pairs)
    path += `?${pairs.join('&')}`
  }
  if (c.is(0.02)) path = mangled(path, c).replace(/[^\x21-\x7e]/g, '')
  const headers: Record<string, string> = {
    cookie,
    ...(c.is(0.1) && { 'x-edit-label': encodeURIComponent(wellFormed(nastyText(c))) }),
    ...(c.is(0.05) && {
      range: c.of(['bytes=0-', 'bytes=-1', 'bytes=9-1', 'bytes=99999999999999999999-', 'bytes=a-b'])
    })
  }
  if (/^(GET|HEAD)$/.test(route.method) || (route.method === 'DELETE' && c.is(0.9)))
    return { method: route.method, path: path || '/', headers, body: null }
  if (/\/calendars$/.test(route.url))
    return {
      method: route.method,
      path,
      headers: { ...headers, 'content-type': 'text/calendar' },
      body: Buffer.from(mangled(CALENDAR, c))
    }
  if (/\/voices$/.test(route.url))
    return {
      method: route.method,
      path,
      headers: { ...headers, 'content-type': 'audio/wav' },
      body: bytes(c)
    }
  if (/\/clips$/.test(route.url) && c.is(0.3))
    return {
      method: route.method,
      path,
      headers: { ...headers, 'content-type': 'application/octet-stream' },
      body: bytes(c)
    }
  const value = body ? like(body, c, known, c.of([0, 0.02, 0.15])) : nasty(c)
  let text = JSON.stringify(value) ?? ''
  if (c.is(0.05)) text = mangled(text, c)
  return {
    method: route.method,
    path,
    headers: {
      ...headers,
      'content-type': c.is(0.97)
        ? 'application/json'
        : c.of([
            'text/plain',
            'application/octet-stream',
            'text/calendar',
            'audio/wav',
            'application/xml',
            'x/y',
            ''
          ])
    },
    body: Buffer.from(text)
  }
}

const bytes = (c: Chance): Buffer =>
  Buffer.concat([
    Buffer.from(
      c.of([
        'RIFF\u0010\u0000\u0000\u0000WAVEfmt ',
        'ftypisom',
        '',
        '\u0000\u0000\u0001\u00b3',
        'OggS'
      ])
    ),
    Buffer.from(Array.from({ length: c.below(300) }, () => c.below(256)))
  ])

const wellFormed = (text: string): string =>
  (text as unknown as { toWellFormed(): string }).toWellFormed()

/** @returns the status @throws Error when no answer comes in time */
function send(address: string, { method, path, headers, body }: Asked): Promise<number> {
  const { hostname, port } = new URL(address)
  return new Promise((resolve, reject) => {
    const request = ask(
      {
        host: hostname,
        port,
        method,
        path,
        headers: { ...headers, ...(body && { 'content-length': String(body.length) }) },
        timeout: ANSWERS_WITHIN_MS,
        agent: false
      },
      (answer) => {
        answer.resume()
        answer.on('end', () => resolve(answer.statusCode!))
        answer.on('error', reject)
      }
    )
    request.on('timeout', () =>
      request.destroy(new Error(`no answer within ${ANSWERS_WITHIN_MS / 1000} s`))
    )
    // A body that nobody wants is cut off; what was answered before counts.
    request.on('error', (error: NodeJS.ErrnoException) =>
      error.code === 'ECONNRESET' || error.code === 'EPIPE' || error.code?.startsWith('HPE_')
        ? resolve(400)
        : reject(error)
    )
    request.end(body ?? undefined)
  })
}
