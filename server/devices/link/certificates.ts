import { connect as connectTls, TLSSocket } from 'node:tls'
import { Agent, buildConnector, fetch as fetchWith, type Dispatcher } from 'undici'
import { said } from '../../../core/messages/said.ts'
import { DeviceError } from './deviceError.ts'

/** Its answers are those of Node's own `fetch`, which is made of the same code; the types are two. */
const fetchOver = fetchWith as unknown as (url: string, init: object) => Promise<Response>

/** A device over TLS has shown another certificate than the one it is known by. */
export class OtherCertificate extends DeviceError {
  /** SHA-256 of what it has shown. */
  readonly shown: string

  constructor(shown: string) {
    super('certificate', said('devices.otherCertificate'))
    this.shown = shown
  }
}

/**
 * TLS to one device. Nobody signs the certificates of cameras: the first one that a device shows is kept, by its
 * SHA-256, and every connection after that must show the same. Source: RFC 7469, 1 (trust on first use), from memory.
 */
export class DeviceTls {
  private agent: Dispatcher | null = null
  /** What it must show; null: whatever it shows first. */
  private pinned: string | null
  /** What it has shown; null: it has not been spoken with over TLS. */
  shown: string | null = null

  constructor(pinned: string | null) {
    this.pinned = pinned
  }

  /** Connections over which the device's certificate is looked at before anything is sent. */
  get dispatcher(): Dispatcher {
    return (this.agent ??= new Agent({ connect: this.connector() }))
  }

  fetch(url: string, init: RequestInit): Promise<Response> {
    return fetchOver(url, { ...init, dispatcher: this.dispatcher })
  }

  /** @throws OtherCertificate */
  check(socket: TLSSocket): void {
    const shown = socket.getPeerX509Certificate()?.fingerprint256 ?? ''
    if (this.pinned !== null && shown !== this.pinned) throw new OtherCertificate(shown)
    this.pinned = shown
    this.shown = shown
  }

  /** Looks at the certificate at an address. @throws OtherCertificate, or what goes wrong on the way */
  async checkAt(host: string, port: number, withinMs: number): Promise<void> {
    const socket = connectTls({ host, port, rejectUnauthorized: false, timeout: withinMs })
    try {
      await new Promise<void>((resolve, reject) => {
        socket.on('error', reject)
        socket.on('timeout', () => reject(new DOMException('late', 'TimeoutError')))
        socket.on('secureConnect', resolve)
      })
      this.check(socket)
    } finally {
      socket.destroy()
    }
  }

  private connector(): buildConnector.connector {
    // A resumed session would show no certificate.
    const connect = buildConnector({ rejectUnauthorized: false, maxCachedSessions: 0 })
    return (options, done) =>
      connect(options, (error, socket) => {
        if (error) return done(error, null)
        try {
          if (socket instanceof TLSSocket) this.check(socket)
          done(null, socket)
        } catch (problem) {
          socket.destroy()
          done(problem as Error, null)
        }
      })
  }
}
