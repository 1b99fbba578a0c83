import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { fileURLToPath } from 'node:url'
import { demoAccounts } from '../server/seed.ts'

/** The demo site as `npm start` starts it, for benches that ask it as its installer would. */

const root = fileURLToPath(new URL('..', import.meta.url))
const ANALYSED = ['slipway', 'quay-path', 'workshop-yard', 'waiting-room']
export const pause = (ms: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, ms))

/** One request; the answer's body. */
export type Ask = <T>(method: string, path: string, body?: object) => Promise<T>

/** @throws Error for an answer that is none */
export const asking =
  (base: string, cookie: string): Ask =>
  async <T>(method: string, path: string, body?: object): Promise<T> => {
    const answer = await fetch(base + path, {
      method,
      headers: { cookie, ...(body && { 'content-type': 'application/json' }) },
      ...(body && { body: JSON.stringify(body) })
    })
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`)
    return (await answer.json()) as T
  }

/** Starts it, and waits until its clips have been analysed; with its past: until it answers. */
export async function startDemo(
  folder: string,
  port: number,
  withPast = false
): Promise<{
  base: string
  cookie: string
  ask: Ask
  stop: () => Promise<void>
  /** Until the address was there, s. */
  after: number
}> {
  const began = performance.now()
  const child = spawn(
    process.execPath,
    [
      join(root, 'scripts/start.mjs'),
      '--port',
      String(port),
      '--data',
      folder,
      ...(withPast ? [] : ['--no-past'])
    ],
    { stdio: ['ignore', 'pipe', 'inherit'], detached: true }
  )
  for await (const line of createInterface(child.stdout)) if (/Stop with Ctrl-C/.test(line)) break
  const after = (performance.now() - began) / 1000
  const base = `http://127.0.0.1:${port}`
  const { username, password } = demoAccounts()[0]!
  const signedIn = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ username, password })
  })
  const cookie = signedIn.headers.get('set-cookie')!.split(';')[0]!
  const ask = asking(base, cookie)
  for (const camera of withPast ? [] : ANALYSED)
    while (
      (
        await ask<{ clips: { state: string }[] }>('GET', `/api/sites/skerrow/cameras/${camera}`)
      ).clips.some((c) => c.state !== 'ready')
    )
      await pause(500)
  return {
    base,
    cookie,
    ask,
    after,
    stop: async () => {
      const ended = once(child, 'exit')
      process.kill(-child.pid!, 'SIGINT')
      await ended
    }
  }
}
