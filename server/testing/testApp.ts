import { inWords } from './inWords.ts'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { startMailbox, type Mailbox } from '../../simulators/mailbox.ts'
import type { Device } from '../../simulators/camera/device.ts'
import { Contacts } from '../../simulators/contacts.ts'
import { DEMO_CONTACTS, startPages } from '../../simulators/pages.ts'
import { Station } from '../../simulators/station.ts'
import { makeApp, type App } from '../app.ts'
import { Database, type DatabaseAddress } from '../database.ts'
import type { Neighbourhood } from '../devices/discovery.ts'
import { keptAnalysis } from './keptAnalysis.ts'
import type { Role } from '../../core/accounts/accounts.ts'
import { insertAccount } from '../accounts/queries.ts'
import { DEMO_SITE, demoAccounts, seed } from '../seed.ts'
import { saveCamera, saveSite } from '../sites/cameras.ts'
import { readSite } from '../sites/queries.ts'
import { announcementOf } from '../../simulators/announcement.ts'
import type { Simulators } from '../simulators.ts'
import { cookieOf } from './session.ts'

/** The whole server over the real database, with the real mailbox simulator, for one test file. */
export interface TestApp {
  readonly app: App
  /** Where the server can be reached. */
  readonly address: string
  database: Database
  mailbox: Mailbox
  station: Station
  contacts: Contacts
  /** What another server over the same data needs. */
  parts: { simulators: Simulators; name: string }
  /** What webhooks brought, and the other simulators' states. */
  outside(): Promise<any>
  folder: string
  /** Who asks, as a header; an installer unless it is said otherwise. */
  cookie: string
  /** A session of somebody of a role. */
  as(role: Role): Promise<string>
  /** The id of its site. */
  site: string
  /** The address of what is asked of the site, as it is for others. */
  addressOf(path: string): string
  /** `fetch` as an installer; a path that does not begin with `/api/` is of the site. */
  fetch(path: string, init?: RequestInit): Promise<Response>
  /** One request; the answer's status and body. */
  ask(
    method: string,
    path: string,
    body?: unknown,
    cookie?: string
  ): Promise<{ status: number; body: any }>
  upload(camera: string, name: string, content: Buffer): Promise<{ status: number; body: any }>
  /** Ends the server and starts it again, over the same data. */
  restart(): Promise<void>
  close(): Promise<void>
}

/** The clip that ships with the project. */
export const demoClip = (): Buffer =>
  readFileSync(fileURLToPath(new URL('../../demo/clips/slipway-morning.mp4', import.meta.url)))

/** Its first seconds, for what has to be analysed only to be there. */
export const shortClip = (seconds: number): Buffer =>
  execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-i',
      fileURLToPath(new URL('../../demo/clips/slipway-morning.mp4', import.meta.url)),
      '-t',
      String(seconds),
      '-c',
      'copy',
      '-movflags',
      'frag_keyframe+empty_moov',
      '-f',
      'mp4',
      '-'
    ],
    { maxBuffer: 2 ** 26 }
  )

/** A site that somebody has set up, with one camera. */
async function setUpBare(database: Database): Promise<void> {
  const note = { by: 'Wardoptic', byId: null, label: '' }
  await database.transaction(async (sql) => {
    const { name } = await readSite(sql, 'site')
    const settings = {
      name,
      timeZone: 'Europe/London',
      position: null,
      surroundings: 'outdoors'
    } as const
    await saveSite(sql, 'site', settings, 1, note, Date.now())
    await saveCamera(
      sql,
      'site',
      'camera-1',
      { name: 'Camera 1', order: 0, surroundings: null },
      0,
      note,
      Date.now()
    )
  })
}

/**
 * @param clipsOf cameras whose demo clips are added, and analysed beside the test
 * @param analyse how; left out: once for all files of tests
 * @param devices that the simulators' pages operate @param contacts that they follow
 */
export async function startTestApp({
  withDemo = false,
  withPasswords = false,
  clipsOf = [] as readonly string[],
  analyse = keptAnalysis,
  mostClipBytes = 50 * 2 ** 20,
  places = [] as Neighbourhood[],
  devices = [] as readonly Device[],
  contacts = new Contacts()
} = {}): Promise<TestApp> {
  const address = JSON.parse(process.env.WARDOPTIC_TEST_DATABASE!) as DatabaseAddress
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-app-'))
  const name = `wardoptic_${folder.slice(-6).toLowerCase()}_${process.pid}`
  const database = await Database.open(address, name)
  const mailbox = await startMailbox(join(folder, 'mailbox'))
  const station = await new Station().start()
  const pages = await startPages({
    station,
    contacts,
    held: DEMO_CONTACTS,
    devices,
    mailboxPort: mailbox.httpPort
  })
  const simulators = announcementOf(mailbox, station, pages)
  const make = (): Promise<App> =>
    makeApp({
      database,
      folder,
      mostClipBytes,
      simulators,
      places,
      analyse,
      log: process.env.WARDOPTIC_TEST_LOG !== undefined
    })
  let app = await make()
  await seed(database, app.clips, withDemo, clipsOf)
  if (!withDemo) await setUpBare(database)
  // Digests of passwords take their time: only where somebody signs in with one.
  if (withPasswords) await app.accounts.prepare(demoAccounts())
  else
    for (const { password, ...account } of demoAccounts())
      await insertAccount(database, account, `none of ${password.length}`, Date.now())
  const site = withDemo ? DEMO_SITE : 'site'
  const addressOf = (path: string): string =>
    path.startsWith('/api/') ? path : `/api/sites/${site}${path}`
  let server = await app.http.listen({ port: 0, host: '127.0.0.1' })
  const as = (role: Role): Promise<string> => cookieOf(database, role)
  let cookie = await as('installer')
  const asked = (path: string, init: RequestInit = {}): Promise<Response> =>
    fetch(path.startsWith('http') ? path : `${server}${addressOf(path)}`, {
      ...init,
      headers: { cookie, ...(init.headers as Record<string, string>) }
    })
  const read = async (answer: Response): Promise<{ status: number; body: any }> => {
    const text = await answer.text()
    return {
      status: answer.status,
      body: answer.headers.get('content-type')?.includes('json') ? inWords(JSON.parse(text)) : text
    }
  }
  return {
    site,
    addressOf,
    get app() {
      return app
    },
    get address() {
      return server
    },
    database,
    mailbox,
    station,
    contacts,
    parts: { simulators, name },
    outside: async () => (await fetch(`http://127.0.0.1:${pages.port}/state`)).json(),
    folder,
    get cookie() {
      return cookie
    },
    set cookie(who) {
      cookie = who
    },
    as,
    fetch: asked,
    ask: async (method, path, body, who = cookie) =>
      read(
        await asked(path, {
          method,
          headers: {
            cookie: who,
            ...(body !== undefined && { 'content-type': 'application/json' })
          },
          ...(body !== undefined && { body: JSON.stringify(body) })
        })
      ),
    upload: async (camera, name, content) =>
      read(
        await asked(`/cameras/${camera}/clips?name=${encodeURIComponent(name)}`, {
          method: 'POST',
          body: new Uint8Array(content),
          headers: { 'content-type': 'application/octet-stream' }
        })
      ),
    restart: async () => {
      await app.close()
      app = await make()
      server = await app.http.listen({ port: 0, host: '127.0.0.1' })
    },
    close: async () => {
      await app.close()
      await database.close()
      await Promise.all([mailbox.close(), station.close(), pages.close()])
      rmSync(folder, { recursive: true, force: true })
    }
  }
}

/** What has not come after so long will not come, however slow the machine is. */
const NEVER_SECONDS = 400

/** Waits until `check` gives something. */
export async function eventually<T>(
  check: () => Promise<T | null | undefined | false>
): Promise<T> {
  const end = Date.now() + NEVER_SECONDS * 1000
  for (;;) {
    const found = await check()
    if (found) return found
    if (Date.now() > end) throw new Error(`not within ${NEVER_SECONDS} s`)
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
}
