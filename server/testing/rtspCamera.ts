import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { fileURLToPath } from 'node:url'

const SCRIPT = fileURLToPath(new URL('rtspCamera.py', import.meta.url))

/** A camera's stream over RTSP, by GStreamer's server (Debian: gir1.2-gst-rtsp-server-1.0). */
export class RtspCamera {
  readonly port: number
  private readonly child: ChildProcess

  private constructor(child: ChildProcess, port: number) {
    this.child = child
    this.port = port
  }

  /** @param account that it asks for, by digest; left out: none @param port left out: a free one */
  static async start(
    encoding: 'h264' | 'h265' | 'jpeg',
    account?: { username: string; password: string },
    port = 0
  ): Promise<RtspCamera> {
    const child = spawn(
      '/usr/bin/python3',
      [SCRIPT, String(port), encoding, ...(account ? [account.username, account.password] : [])],
      { stdio: ['ignore', 'pipe', 'pipe'] }
    )
    let heard = ''
    child.stderr.on('data', (bytes: Buffer) => (heard += bytes.toString()))
    let told = ''
    for await (const bytes of child.stdout as AsyncIterable<Buffer>) {
      told += bytes.toString()
      const ready = /ready (\d+)\n/.exec(told)
      if (ready) return new RtspCamera(child, Number(ready[1]))
    }
    throw new Error(`the RTSP server did not start: ${heard}`)
  }

  get uri(): string {
    return `rtsp://127.0.0.1:${this.port}/live`
  }

  async stop(): Promise<void> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return
    const ended = once(this.child, 'exit')
    this.child.kill('SIGKILL')
    await ended
  }
}
