import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { startProgram } from '../testing/starting.ts'
import { freePort } from './mariadb.ts'

let folder: string
const running: ChildProcess[] = []
beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'wardoptic-start-'))))
afterAll(() => {
  for (const child of running) child.kill('SIGKILL')
  rmSync(folder, { recursive: true, force: true })
})

const start = (...args: string[]) => startProgram(running, '--data', folder, '--no-demo', ...args)

/** Processes that have the data folder in their command line. */
const withFolder = () =>
  spawnSync('pgrep', ['-f', `${folder}/m`], { encoding: 'utf8' }).stdout.trim()

/** Ctrl-C: the signal goes to everything in the group. */
async function interrupt(child: ChildProcess): Promise<number | null> {
  const ended = once(child, 'exit')
  process.kill(-child.pid!, 'SIGINT')
  const [code] = (await ended) as [number | null]
  return code
}

describe('npm start', () => {
  test('starts, keeps data over a second start, and Ctrl-C stops everything', async () => {
    const first = await start('--port', String(await freePort()))
    // The first account is made with the code that was printed, once.
    const [code] = /[A-Z2-9]{5}(-[A-Z2-9]{5}){3}/.exec(first.output())!
    const make = (said: string) =>
      fetch(`${first.address}/api/first-account`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          code: said,
          username: 'installer',
          password: 'a-password-of-mine',
          name: 'Installer'
        })
      })
    expect((await make('AAAAA-AAAAA-AAAAA-AAAAA')).status).toBe(403)
    const signedIn = await make(code.toLowerCase())
    expect(signedIn.status).toBe(201)
    expect((await make(code)).status).toBe(403)
    const cookie = signedIn.headers.get('set-cookie')!.split(';')[0]!
    expect((await fetch(`${first.address}/api/sites/site/cameras/camera-1`)).status).toBe(401)
    const put = (path: string, body: object) =>
      fetch(`${first.address}/api/sites/site/cameras/camera-1/${path}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json', cookie },
        body: JSON.stringify({ version: 0, ...body })
      })
    // An own site begins without a camera.
    const added = await put('settings', {
      settings: { name: 'Camera 1', order: 0, surroundings: null }
    })
    expect(added.status).toBe(200)
    const saved = await put('detections/gate', {
      position: 0,
      detection: {
        id: 'gate',
        name: 'Gate',
        kind: 'line',
        line: [
          [0, 0.5],
          [1, 0.5]
        ]
      }
    })
    expect(saved.status).toBe(200)
    expect(
      await (
        await fetch(`${first.address}/bench/camera-1`, { headers: { accept: 'text/html' } })
      ).text()
    ).toContain('<div id="root">')
    // What is not there is not the page.
    for (const path of [
      '/assets/gone.js',
      '/favicon.ico',
      '/%61ssets/gone.js',
      '/..%2fpackage.json'
    ])
      expect([
        path,
        (await fetch(`${first.address}${path}`, { headers: { accept: 'text/html' } })).status
      ]).toEqual([path, 404])
    expect((await fetch(`${first.address}/healthz`)).status).toBe(200)
    expect(withFolder()).not.toBe('')

    const second = spawnSync(process.execPath, ['scripts/start.mjs', '--data', folder], {
      encoding: 'utf8'
    })
    expect([second.status, second.stderr]).toEqual([
      1,
      expect.saying(`Wardoptic is running already with ${folder}, at ${first.address}`)
    ])

    expect(await interrupt(first.child)).toBe(0)
    expect(withFolder()).toBe('')
    expect(existsSync(join(folder, 'running.json'))).toBe(false)

    const again = await start('--port', String(await freePort()))
    expect(
      await (
        await fetch(`${again.address}/api/sites/site/cameras/camera-1`, { headers: { cookie } })
      ).json()
    ).toMatchObject({ detections: [{ detection: { id: 'gate' } }] })

    expect(again.output()).not.toContain(code)
    // Killed hard, the database is left behind; the next start stops it and takes its place.
    const ended = once(again.child, 'exit')
    again.child.kill('SIGKILL')
    await ended
    const left = Number(readFileSync(join(folder, 'mariadb.pid'), 'utf8'))
    expect(() => process.kill(left, 0)).not.toThrow()
    const third = await start('--port', String(await freePort()))
    expect(() => process.kill(left, 0)).toThrow()
    // Whoever read what it says has gone, as when a connection to its machine is cut.
    third.child.stdout!.destroy()
    expect(await interrupt(third.child)).toBe(0)
    expect(withFolder()).toBe('')
  }, 600_000)

  test('Ctrl-C while it starts ends what it has begun, and is no error', async () => {
    const child = spawn(
      process.execPath,
      ['scripts/start.mjs', '--data', folder, '--no-demo', '--port', String(await freePort())],
      { detached: true, stdio: ['ignore', 'pipe', 'pipe'] }
    )
    running.push(child)
    let errors = ''
    child.stderr.on('data', (part: Buffer) => (errors += part.toString()))
    // The simulators and the database are starting then, and the program is still to be loaded.
    await once(child.stdout, 'data')
    expect(await interrupt(child)).toBe(0)
    expect(errors).not.toContain('error')
    expect(withFolder()).toBe('')
    expect(existsSync(join(folder, 'running.json'))).toBe(false)
  })

  test('reports a port in use, and leaves nothing running', async () => {
    const server = createServer().listen(0, '127.0.0.1')
    await once(server, 'listening')
    const { port } = server.address() as { port: number }
    const { status, stderr } = spawnSync(
      process.execPath,
      ['scripts/start.mjs', '--data', folder, '--port', String(port)],
      { encoding: 'utf8' }
    )
    expect([status, stderr]).toEqual([
      1,
      expect.saying(`port ${port} is taken; give another one with --port`)
    ])
    expect(withFolder()).toBe('')
    server.close()
  })

  test.each([
    [['--port', '0'], '--port is "0"; must be a whole number from 1 to 65535'],
    [['--clip-limit', 'much'], '--clip-limit is "much"'],
    [['--prot', '1'], "Unknown option '--prot'"]
  ])('refuses %j and says what is right', (args, message) => {
    const { status, stderr } = spawnSync(
      process.execPath,
      ['scripts/start.mjs', '--data', folder, ...args],
      { encoding: 'utf8' }
    )
    expect([status, stderr]).toEqual([1, expect.saying(message)])
  })
})
