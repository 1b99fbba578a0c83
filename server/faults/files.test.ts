import { createServer } from 'node:http'
import { chmodSync, existsSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { openKeys } from '../keys.ts'
import { takeFolder, whoRuns } from '../launch/running.ts'
import { requireSpace } from '../space.ts'
import { DeviceLink } from '../devices/link/link.ts'
import { diskError, viewOfError } from '../errors.ts'
import { eventually, shortClip, startTestApp, type TestApp } from '../testing/testApp.ts'

let t: TestApp
beforeAll(async () => (t = await startTestApp({ withDemo: true, clipsOf: [] })))
afterAll(() => t.close())

describe('truncated or missing files', () => {
  test('analyses a clip with truncated targets or an empty picture again at the next start', async () => {
    const { id } = (await t.upload('slipway', 'Torn', shortClip(2))).body
    const ready = () =>
      eventually(async () => (await t.ask('GET', `/clips/${id}`)).body.state === 'ready')
    await ready()
    const file = (name: string): string => join(t.folder, 'clips', id, name)
    const whole = readFileSync(file('view.mp4'))
    writeFileSync(file('view.mp4'), '')
    expect(await t.ask('GET', `/clips/${id}/video`)).toMatchObject({
      status: 409,
      body: {
        message: 'The file view.mp4 of Torn is missing, empty or cut. Analyse the clip again.'
      }
    })
    writeFileSync(file('view.mp4'), whole)
    expect((await t.ask('GET', `/clips/${id}/video`)).status).toBe(200)
    truncateSync(file('measures.bin'), 10)
    expect((await t.ask('GET', `/clips/${id}/measures`)).status).toBe(409)
    await t.restart()
    await ready()
    expect((await t.ask('GET', `/clips/${id}/measures`)).status).toBe(200)
    rmSync(file('tracks.csv'))
    expect((await t.ask('GET', `/clips/${id}/tracks`)).status).toBe(409)
  })

  test.each(['', '{', '{"pid":', 'null', '[]', '{"pid":"x"}', '{"pid":999999999}'])(
    'takes a running.json of %j for no running server',
    (text) => {
      writeFileSync(join(t.folder, 'running.json'), text)
      expect(whoRuns(t.folder)).toBeNull()
      const { say, release } = takeFolder(t.folder)
      say({ address: 'http://127.0.0.1:1', databasePort: 7 })
      expect(JSON.parse(readFileSync(join(t.folder, 'running.json'), 'utf8'))).toEqual({
        pid: process.pid,
        address: 'http://127.0.0.1:1',
        databasePort: 7
      })
      release()
      expect(existsSync(join(t.folder, 'running.json'))).toBe(false)
    }
  )

  test('reports a missing or truncated key and what to enter again; makes a new one only on request', async () => {
    await t.ask('PUT', '/settings/mail', {
      version: 1,
      mail: {
        host: 'mail.example',
        port: 25,
        encryption: 'none',
        username: 'u',
        sender: 'a@mail.example'
      },
      password: 'secret-of-mail'
    })
    await t.database.run(
      "INSERT INTO device (id, site_id, name, address, username, password_sealed, state, added_at) VALUES ('cam', 'skerrow', 'Gate camera', 'http://192.0.2.9', 'admin', 'xx', 'unknown', 0)"
    )
    const file = join(t.folder, 'device.key')
    const key = readFileSync(file)
    rmSync(file)
    await expect(openKeys(t.database, t.folder, false)).rejects.toThrowWords(
      `${file} is missing, and without it these passwords must be entered again: Gate camera, the mail server. Restore it from a backup, or start with --new-key.`
    )
    expect(existsSync(file)).toBe(false)
    writeFileSync(file, key.subarray(0, 5))
    await expect(openKeys(t.database, t.folder, false)).rejects.toThrowWords(
      `${file} has 5 bytes, not 32`
    )
    const { devices } = await openKeys(t.database, t.folder, true)
    expect(() => devices.decrypt(Buffer.alloc(60))).toThrowWords(
      'was encrypted with another key; enter it again'
    )
    writeFileSync(file, key)
    await t.database.run("DELETE FROM device WHERE id = 'cam'")
  })
})

describe('a full or read-only disk', () => {
  test('gives 507 before a large write and when a write fails', async () => {
    await expect(requireSpace(t.folder, 1e15)).rejects.toMatchObject({
      status: 507,
      view: {
        code: 'no-space',
        said: expect.saying(
          /The disk is nearly full: \d+ MB are free, and 200 MB are kept for alarms; this would take \d+ MB/
        )
      }
    })
    await expect(requireSpace(t.folder)).resolves.toBeUndefined()
    for (const code of ['ENOSPC', 'EDQUOT', 'EROFS', 'EACCES'])
      expect(viewOfError(Object.assign(new Error('x'), { code }))).toMatchObject({
        status: 507,
        view: { code: 'no-space' }
      })
    expect(diskError(new Error('other'))).toBeNull()
    // /dev/full refuses every write, as a full disk does.
    const { writeFile } = await import('node:fs/promises')
    const error = await writeFile('/dev/full', 'x').catch((e: unknown) => e)
    expect(viewOfError(error)).toMatchObject({
      status: 507,
      view: { said: 'The disk is full. Free some space. Saved data is safe.' }
    })
  })

  test('reports a read-only folder of clips, and keeps the rest running', async () => {
    if (process.getuid?.() === 0) return // Root writes anywhere; `/dev/full` above shows the same.
    chmodSync(join(t.folder, 'clips'), 0o500)
    expect((await t.upload('slipway', 'X', shortClip(1))).status).toBe(507)
    chmodSync(join(t.folder, 'clips'), 0o700)
    expect((await t.ask('GET', '/site')).status).toBe(200)
  })
})

describe('a device that drips or floods', () => {
  const answering = async (
    answer: (write: (text: string) => void, end: () => void) => void
  ): Promise<{ link: DeviceLink; close: () => void }> => {
    const server = createServer((_request, response) => {
      response.writeHead(200, { 'content-type': 'application/soap+xml' })
      answer(
        (text) => void response.write(text),
        () => void response.end()
      )
    })
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    return {
      link: new DeviceLink(
        `http://127.0.0.1:${(server.address() as { port: number }).port}`,
        null,
        1500
      ),
      close: () => {
        server.closeAllConnections()
        server.close()
      }
    }
  }

  test('ends an answer of a byte now and then in time', async () => {
    let timer: NodeJS.Timeout | undefined
    const { link, close } = await answering(
      (write) => void (timer = setInterval(() => write('<'), 100))
    )
    await expect(link.information()).rejects.toThrowWords('the device did not answer within 1.5 s')
    clearInterval(timer)
    close()
  })

  test('refuses endless answers, 480,000 elements, and nesting 100,000 deep', async () => {
    const envelope = (inner: string): string =>
      `<s:Envelope xmlns:s="http://www.w3.org/2003/05/soap-envelope"><s:Body>${inner}</s:Body></s:Envelope>`
    for (const [text, words] of [
      [envelope('<a/>'.repeat(480_000)), 'has more than 60000 elements'],
      [envelope('<a>'.repeat(100_000)), 'is nested more than 100 deep'],
      ['x'.repeat(3 * 2 ** 20), 'larger than 2 MB']
    ] as const) {
      const { link, close } = await answering((write, end) => {
        write(text)
        end()
      })
      const began = performance.now()
      await expect(link.information()).rejects.toThrowWords(words)
      expect(performance.now() - began).toBeLessThan(1400)
      close()
    }
  })
})
