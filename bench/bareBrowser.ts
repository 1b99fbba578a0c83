import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { WebSocket } from 'undici'

/** One command of the Chrome DevTools Protocol; its result. @throws Error with what the browser says */
export type Command = <T>(method: string, params?: object) => Promise<T>

interface Answer {
  id?: number
  result?: unknown
  error?: { message: string }
}

/** A browser that nothing but these commands looks into, with one page. */
export interface BareBrowser {
  /** Of the browser itself. */
  machine: Command
  /** Of its page. */
  page: Command
  close(): Promise<void>
}

/**
 * Starts Chromium with one empty page. A test driver has the browser keep what each page has fetched, so that its tests may
 * ask for it; here nothing is kept, and what its processes need is what the page needs.
 */
export async function startBareBrowser(): Promise<BareBrowser> {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-browser-'))
  const child = spawn(
    '/usr/bin/chromium',
    [
      '--headless=new',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--disable-component-update',
      '--window-size=1280,800',
      '--remote-debugging-port=0',
      `--user-data-dir=${folder}`,
      'about:blank'
    ],
    { stdio: ['ignore', 'ignore', 'pipe'] }
  )
  const ended = once(child, 'exit')
  let address = ''
  for await (const line of createInterface(child.stderr)) {
    address = /ws:\/\/\S+/.exec(line)?.[0] ?? ''
    if (address) break
  }
  if (!address) throw new Error('Chromium did not say where it can be asked')
  // What else it says is of no interest, and must not fill the pipe.
  child.stderr.resume()
  const socket = new WebSocket(address)
  await new Promise((resolve, reject) => {
    socket.onopen = resolve
    socket.onerror = () => reject(new Error(`${address} does not answer`))
  })
  const waiting = new Map<number, (answer: Answer) => void>()
  socket.onmessage = ({ data }) => {
    const answer = JSON.parse(String(data)) as Answer
    if (answer.id === undefined) return
    waiting.get(answer.id)?.(answer)
    waiting.delete(answer.id)
  }
  let last = 0
  const commands =
    (session?: string): Command =>
    async <T>(method: string, params: object = {}): Promise<T> => {
      const id = ++last
      const answered = new Promise<Answer>((resolve) => waiting.set(id, resolve))
      socket.send(JSON.stringify({ id, method, params, sessionId: session }))
      const { result, error } = await answered
      if (error) throw new Error(`${method}: ${error.message}`)
      return result as T
    }
  const machine = commands()
  const { targetId } = await machine<{ targetId: string }>('Target.createTarget', {
    url: 'about:blank'
  })
  const { sessionId } = await machine<{ sessionId: string }>('Target.attachToTarget', {
    targetId,
    flatten: true
  })
  return {
    machine,
    page: commands(sessionId),
    close: async () => {
      socket.close()
      child.kill()
      await ended
      rmSync(folder, { recursive: true, force: true })
    }
  }
}
