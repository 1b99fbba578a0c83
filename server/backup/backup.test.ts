import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { createConnection } from 'mysql2/promise'
import { makeApp } from '../app.ts'
import { Database, type DatabaseAddress } from '../database.ts'
import { migrate, readFiles } from '../migrations.ts'
import { cookieOf } from '../testing/session.ts'
import { eventually, shortClip, startTestApp, type TestApp } from '../testing/testApp.ts'
import { backUp } from './backup.ts'
import { restore } from './restore.ts'
import { backUpDatabase } from './upgrade.ts'
import { encryptStream, decryptStream } from './sealedStream.ts'

const address = JSON.parse(process.env.WARDOPTIC_TEST_DATABASE!) as DatabaseAddress
const PASSPHRASE = 'ferry-boats-and-fog'
let t: TestApp
let folder: string
beforeAll(async () => {
  t = await startTestApp({ withDemo: true, clipsOf: [] })
  folder = mkdtempSync(join(tmpdir(), 'wardoptic-backup-'))
})
afterAll(async () => {
  await t.close()
  rmSync(folder, { recursive: true, force: true })
})

async function bytesOf(source: AsyncIterable<Uint8Array>): Promise<Buffer> {
  const parts: Uint8Array[] = []
  for await (const part of source) parts.push(part)
  return Buffer.concat(parts)
}
async function* pieces(content: Buffer, size: number): AsyncGenerator<Buffer> {
  for (let at = 0; at < content.length; at += size) yield content.subarray(at, at + size)
}
const secret = async (): Promise<string> => PASSPHRASE

describe('an encrypted stream', () => {
  const content = Buffer.concat(
    Array.from({ length: 90_000 }, (_, i) => createHash('sha256').update(String(i)).digest())
  )

  test.each([0, 1, 2 ** 20 - 1, 2 ** 20, 2 ** 20 + 1, content.length])(
    'returns %d bytes unchanged, whatever the pieces',
    async (length) => {
      const sealed = await bytesOf(
        encryptStream(pieces(content.subarray(0, length), 70_001), PASSPHRASE)
      )
      expect(
        (await bytesOf(decryptStream(pieces(sealed, 33_333), secret))).equals(
          content.subarray(0, length)
        )
      ).toBe(true)
      expect(sealed.includes(content.subarray(0, 32))).toBe(false)
    }
  )

  test('detects cuts, changes, reordering, appended data and a wrong passphrase', async () => {
    const sealed = await bytesOf(encryptStream(pieces(content, 65_536), PASSPHRASE))
    const head = sealed.indexOf(10) + 1
    const piece = 4 + 2 ** 20 + 16
    const opened = (bytes: Buffer, with_ = secret) =>
      bytesOf(decryptStream(pieces(bytes, 65_536), with_))
    const changed = (at: number): Buffer => Buffer.from(sealed).fill(sealed[at]! ^ 1, at, at + 1)
    await expect(opened(sealed.subarray(0, sealed.length - 1))).rejects.toThrowWords(
      'is cut off in the middle of a piece'
    )
    await expect(opened(sealed.subarray(0, head + piece))).rejects.toThrowWords(
      'is cut off: its last piece is missing'
    )
    await expect(opened(changed(head + 100))).rejects.toThrowWords(
      'another passphrase, or is damaged'
    )
    await expect(opened(changed(head + piece + 100))).rejects.toThrowWords('is damaged at piece 2')
    const swapped = Buffer.concat([
      sealed.subarray(0, head),
      sealed.subarray(head + piece, head + 2 * piece),
      sealed.subarray(head, head + piece),
      sealed.subarray(head + 2 * piece)
    ])
    await expect(opened(swapped)).rejects.toThrowWords('another passphrase, or is damaged')
    await expect(opened(Buffer.concat([sealed, Buffer.from('x')]))).rejects.toThrowWords(
      'continues after its end'
    )
    await expect(opened(sealed, async () => 'another-passphrase')).rejects.toThrowWords(
      'another passphrase'
    )
    await expect(opened(Buffer.from('hello\n'))).rejects.toThrowWords('is not a Wardoptic backup')
    // A key that would take all memory is not made.
    await expect(
      opened(Buffer.from(sealed.toString('latin1').replace('131072', '99131072'), 'latin1'))
    ).rejects.toThrowWords('needs a key this version does not support')
  })
})

describe('backup and restore', () => {
  /** Every route that reads, with what is there. */
  const addresses = async (): Promise<string[]> => {
    const ids = async (sql: string): Promise<string[]> =>
      (await t.database.rows<{ id: string | number }>(sql)).map((r) => String(r.id))
    const values: Record<string, string[]> = {
      cameras: await ids('SELECT id FROM camera'),
      clips: await ids('SELECT id FROM clip'),
      alarms: await ids('SELECT id FROM alarm'),
      triggers: await ids('SELECT id FROM fired_trigger'),
      deliveries: await ids('SELECT id FROM delivery'),
      voices: await ids('SELECT id FROM voice_file'),
      schedules: await ids('SELECT id FROM schedule WHERE NOT deleted'),
      checks: await ids("SELECT id FROM proof_check WHERE camera_id = 'slipway'")
    }
    return t.app.routes
      .filter(
        (r) =>
          r.method === 'GET' &&
          !/live|stream|session|entrance|simulators|mailbox|retention|archive|devices\/|runs|history\/:id|sendings|phrases|audit|\/walk/.test(
            r.url
          )
      )
      .map(({ url }) => url.replace('/:site/', '/skerrow/'))
      .flatMap((url) => {
        if (!url.includes(':')) return [url]
        const thing = url.split('/skerrow/')[1]!.split('/')[0]!
        const ofThing = (values[thing] ?? []).map((id) =>
          url.replace(/:(camera|id)/, encodeURIComponent(id))
        )
        return ofThing
          .filter((u) => !u.includes(':') || u.includes('slipway'))
          .map((u) =>
            u.replace(':id', values.checks?.[0] ?? 'none').replace(':file', 'snapshot.jpg')
          )
      })
  }
  const answerOf = async (
    server: string,
    cookie: string,
    path: string
  ): Promise<[string, number, string]> => {
    const answer = await fetch(server + path, { headers: { cookie } })
    const body = Buffer.from(await answer.arrayBuffer())
    const type = answer.headers.get('content-type') ?? ''
    // How stations have answered since the start, and what is being worked out, is not saved.
    if (type.includes('json'))
      return [
        path,
        answer.status,
        body
          .toString('utf8')
          .replace(/"(proposing|unasked)":\d+/g, '')
          .replace(/"stations":\{("[^"]*":\{[^}]*\},?)*\}/, '')
      ]
    // A calendar says in which second it was asked for.
    if (type.includes('calendar'))
      return [path, answer.status, body.toString('utf8').replace(/^DTSTAMP:.*$/gm, '')]
    return [path, answer.status, createHash('sha256').update(body).digest('hex')]
  }

  test('backs up while running, under triggers and a deletion; the restored server answers like the original, route by route', async () => {
    // Something of everything: a clip with its analysis, an alarm with notes and files, a check, a voice, a secret.
    const clip = (await t.upload('slipway', 'Kept', shortClip(3))).body
    const goes = (await t.upload('slipway', 'Goes', shortClip(2))).body
    await eventually(
      async () =>
        (await t.ask('GET', `/clips/${clip.id}`)).body.state === 'ready' &&
        (await t.ask('GET', `/clips/${goes.id}`)).body.state === 'ready'
    )
    const { body: taken } = await t.ask('POST', '/triggers', {
      key: 'k ',
      camera: 'slipway',
      detection: 'quay-edge'
    })
    await t.ask('POST', `/alarms/${taken.alarm}/acknowledge`, {
      comment: 'A fox; “quoted”, ümlaut, 船',
      confirmed: true
    })
    await t.ask('PUT', '/settings/mail', {
      version: 1,
      mail: {
        host: 'mail.example',
        port: 587,
        encryption: 'starttls',
        username: 'u',
        sender: 'a@mail.example'
      },
      password: 'of-the-mail'
    })
    await t.fetch('/voices?name=Called', {
      method: 'POST',
      headers: { 'content-type': 'audio/wav' },
      body: new Uint8Array(readFileSync(new URL('../voices/called.wav', import.meta.url)))
    })
    await t.ask('POST', '/proving/take', {})
    // A shift counts from the note before it: without one, from the instant at which it is asked for.
    expect((await t.ask('POST', '/shift/notes', { words: 'Until 02:00.' })).status).toBe(201)
    const file = join(folder, 'site.wardoptic')
    // Triggers come in, and a clip goes, while it is made: what is saved is one moment.
    const busy = (async () => {
      for (let n = 0; n < 60; n++)
        await t.ask('POST', '/triggers', {
          key: `during ${n}`,
          camera: 'quay-path',
          detection: 'path-crossing'
        })
    })()
    const made = backUp(file, {
      address,
      name: t.parts.name,
      folder: t.folder,
      passphrase: PASSPHRASE
    })
    await t.ask('DELETE', `/clips/${goes.id}`)
    expect((await made).files).toBeGreaterThan(5)
    await busy
    // What it held back is taken away afterwards.
    await eventually(async () => !existsSync(join(t.folder, 'clips', goes.id)))

    // Compared is a state that stands still: one that is made when nothing goes on any more.
    await t.app.close()
    await t.database.run("UPDATE delivery SET state = 'failed' WHERE state = 'pending'")
    const quiet = join(folder, 'quiet.wardoptic')
    await backUp(quiet, { address, name: t.parts.name, folder: t.folder, passphrase: PASSPHRASE })
    for (const [from, to] of [
      [file, 'during'],
      [quiet, 'after']
    ]) {
      const name = `wardoptic_restored_${to}_${process.pid}`
      const data = join(folder, to!)
      await restore(from!, data, secret, { address, name })
      const database = await Database.open(address, name)
      expect(
        (
          await database.rows<{ n: number }>(
            'SELECT COUNT(*) AS n FROM fired_trigger LEFT JOIN alarm ON alarm.id = alarm_id WHERE alarm.id IS NULL'
          )
        )[0]!.n
      ).toBe(0)
      // Each file that a row names is there.
      for (const { id } of await database.rows<{ id: string }>(
        "SELECT id FROM clip WHERE state = 'ready'"
      ))
        for (const part of ['original', 'view.mp4', 'tracks.csv', 'measures.bin'])
          expect([to, id, part, existsSync(join(data, 'clips', id, part))]).toEqual([
            to,
            id,
            part,
            true
          ])
      if (to === 'after') {
        const make = (sql: Database, home: string) =>
          makeApp({
            database: sql,
            folder: home,
            mostClipBytes: 2 ** 20,
            simulators: null,
            places: [],
            log: false
          })
        const [original, copy] = [await make(t.database, t.folder), await make(database, data)]
        const [here, there] = [
          await original.http.listen({ port: 0, host: '127.0.0.1' }),
          await copy.http.listen({ port: 0, host: '127.0.0.1' })
        ]
        const [mine, theirs] = [
          await cookieOf(t.database, 'installer'),
          await cookieOf(database, 'installer')
        ]
        const paths = await addresses()
        expect(paths.length).toBeGreaterThan(60)
        for (const path of paths)
          expect(await answerOf(there, theirs, path)).toEqual(await answerOf(here, mine, path))
        // The key came along: the password of the mail server can be opened.
        expect(
          (
            await database.rows<{ sealed: Buffer }>(
              "SELECT sealed FROM site_setting WHERE name = 'mail'"
            )
          )[0]!.sealed
        ).toHaveLength(12 + 16 + 'of-the-mail'.length)
        expect(
          readFileSync(join(data, 'device.key')).equals(readFileSync(join(t.folder, 'device.key')))
        ).toBe(true)
        await Promise.all([original.close(), copy.close()])
      }
      await database.close()
    }
    // Numbers that were given once are not given again.
    const connection = await createConnection({ ...address, database: t.parts.name })
    const copy = await createConnection({
      ...address,
      database: `wardoptic_restored_after_${process.pid}`
    })
    const next = async (c: typeof connection) =>
      (
        await c.query(
          'SELECT table_name AS t, auto_increment AS n FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name IN (?, ?, ?)',
          ['delivery', 'alarm', 'fired_trigger']
        )
      )[0]
    expect(await next(copy)).toEqual(await next(connection))
    await Promise.all([connection.end(), copy.end()])
  }, 600_000)

  test('a truncated backup leaves nothing; leaves non-empty folders and databases alone', async () => {
    const file = join(folder, 'cut.wardoptic')
    const whole = readFileSync(join(folder, 'quiet.wardoptic'))
    writeFileSync(file, whole.subarray(0, whole.length - 1000))
    const data = join(folder, 'nothing')
    await expect(
      restore(file, data, secret, { address, name: `wardoptic_cut_${process.pid}` })
    ).rejects.toThrowWords('the backup: is cut off')
    expect([existsSync(data), existsSync(`${data}.restoring`)]).toEqual([false, false])
    await expect(
      restore(join(folder, 'quiet.wardoptic'), data, secret, { address, name: t.parts.name })
    ).rejects.toThrowWords('is not empty')
    const full = join(folder, 'full')
    mkdirSync(full)
    copyFileSync(file, join(full, 'mine'))
    await expect(restore(join(folder, 'quiet.wardoptic'), full, secret)).rejects.toThrowWords(
      'is not empty'
    )
    expect(existsSync(join(full, 'mine'))).toBe(true)
  })

  test('saves the database before a newer version changes it, and can restore it', async () => {
    const name = `wardoptic_upgrade_${process.pid}`
    const data = join(folder, 'upgraded')
    mkdirSync(data)
    const files = readFiles()
    const old = await createConnection(address)
    await old.query(`CREATE DATABASE ${name}`)
    await old.query(`USE ${name}`)
    await migrate(old, undefined, files.slice(0, 11))
    await old.query("INSERT INTO site (id, name, time_zone) VALUES ('site', 'As it was', 'UTC')")
    const said: string[] = []
    const upgraded = await Database.open(address, name, () =>
      backUpDatabase(data, address, name, (words) => void said.push(words))
    )
    expect(said).toEqual([expect.saying('Upgrading the database. Copy of the old one: ')])
    const file = said[0]!.split(': ')[1]!
    expect(statSync(file).mode & 0o777).toBe(0o600)
    expect(await upgraded.rows('SELECT hours FROM tally')).toEqual([])
    await upgraded.close()
    // Nothing is left to be changed: nothing more is saved.
    await (
      await Database.open(address, name, async () => {
        throw new Error('saved again')
      })
    ).close()
    await restore(file, join(folder, 'as-it-was'), secret, { address, name: `${name}_restored` })
    expect((await old.query(`SELECT name FROM ${name}_restored.site`))[0]).toEqual([
      { name: 'As it was' }
    ])
    await old.end()
  })

  test('works from the command line with a database in the folder', async () => {
    const env = { ...process.env, WARDOPTIC_PASSPHRASE: PASSPHRASE }
    const run = (...args: string[]) =>
      execFileSync(process.execPath, ['scripts/run.mjs', ...args], { encoding: 'utf8', env })
    const data = join(folder, 'by-command')
    expect(
      run('server/backup/restoreCli.ts', join(folder, 'quiet.wardoptic'), '--data', data)
    ).toContain(`${data} is restored to its state of`)
    const again = join(folder, 'again.wardoptic')
    expect(run('server/backup/cli.ts', again, '--data', data)).toMatch(/the database and \d+ files/)
    // Who holds the machine gets in again.
    expect(run('server/accounts/recover.ts', 'isla', '--data', data)).toMatch(
      /isla is an installer; the password is now: \S{20}\n/
    )
    expect(() =>
      execFileSync(
        process.execPath,
        ['scripts/run.mjs', 'server/backup/cli.ts', again, '--data', data],
        { env: { ...env, WARDOPTIC_PASSPHRASE: 'short' }, stdio: 'pipe' }
      )
    ).toThrowWords('must have at least 12')
  })
})
