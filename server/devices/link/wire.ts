import { coded, said, saidOf, type Said } from '../../../core/messages/said.ts'
import { randomBytes } from 'node:crypto'
import { request } from 'undici'
import { InputError } from '../../../core/errors.ts'
import { memoized } from '../../../core/memoized.ts'
import { authorization, readChallenge } from '../../../core/formats/onvif/httpDigest.ts'
import {
  NAMESPACES,
  SoapFault,
  envelope,
  faultOf,
  makeToken,
  readMessage,
  type Message
} from '../../../core/formats/onvif/soap.ts'
import {
  MAX_XML,
  child,
  children,
  down,
  textAt,
  xml,
  xmlText,
  type Element
} from '../../../core/formats/onvif/xml.ts'
import { DeviceTls } from './certificates.ts'
import { DeviceError, deviceErrorOf, isRefusal } from './deviceError.ts'

export interface Credentials {
  username: string
  password: string
}

const ANSWERS_WITHIN_MS = 5000
const NAMESPACES_OF = {
  device: NAMESPACES.tds,
  media: NAMESPACES.trt,
  media2: NAMESPACES.tr2,
  events: NAMESPACES.tev,
  analytics: NAMESPACES.tan,
  deviceIO: NAMESPACES.tmd,
  imaging: NAMESPACES.timg,
  outputs: NAMESPACES.wo
} as const
type Service = keyof typeof NAMESPACES_OF

/** Services by their names in the answer to `GetCapabilities`. */
const CAPABILITIES: Readonly<Record<string, string>> = {
  Device: NAMESPACES_OF.device,
  Media: NAMESPACES_OF.media,
  Events: NAMESPACES_OF.events,
  Analytics: NAMESPACES_OF.analytics,
  DeviceIO: NAMESPACES_OF.deviceIO,
  Imaging: NAMESPACES_OF.imaging
}

/** An answer that is still to be read. */
interface Answer {
  status: number
  type: string
  body: AsyncIterable<Uint8Array> | null
}

const read = (text: string): Message => readMessage(text, coded('places.deviceAnswer'))
/** Of all devices: those of one model say the same. */
const readCached = memoized(read, 2 * 2 ** 20)

/**
 * Messages of the open standard to one device, and what it gives over HTTP beside them. Every call ends: with an answer,
 * or with a DeviceError that says why not.
 */
export class DeviceWire {
  readonly address: string
  private readonly credentials: Credentials | null
  readonly withinMs: number
  private readonly tls: DeviceTls
  /** Addresses of the services by their namespaces, as the device says. */
  private services: Map<string, string> | null = null
  /** By how much the device's clock is ahead, milliseconds; tokens are made on its clock. */
  private ahead: number | null = null

  /**
   * @param address such as http://192.0.2.4 or https://127.0.0.1:8081
   * @param certificate SHA-256 of the one that it must show over TLS; null: any
   * @throws InputError for what is no address
   */
  constructor(
    address: string,
    credentials: Credentials | null,
    withinMs = ANSWERS_WITHIN_MS,
    certificate: string | null = null
  ) {
    if (!URL.canParse(address) || !/^https?:$/.test(new URL(address).protocol))
      throw new InputError('address', said('devices.isNoAddress', address.slice(0, 60)))
    this.address = new URL(address).origin
    this.credentials = credentials
    this.withinMs = withinMs
    this.tls = new DeviceTls(certificate)
  }

  /** SHA-256 of the certificate that the device has shown; null: none. */
  get certificate(): string | null {
    return this.tls.shown
  }

  /** @throws DeviceError when a stream over TLS is not the device's own */
  async checkStream(uri: URL): Promise<void> {
    try {
      await this.tls.checkAt(uri.hostname, Number(uri.port) || 322, this.withinMs)
    } catch (error) {
      throw deviceErrorOf(error, this.withinMs)
    }
  }

  private fetch(url: string, init: RequestInit): Promise<Response> {
    return url.startsWith('https:') ? this.tls.fetch(url, init) : fetch(url, init)
  }

  /** Each camera is asked every two seconds: `fetch` takes five times as long for it. Redirections are not followed. */
  private async post(url: string, text: string, signal: AbortSignal): Promise<Answer> {
    const { statusCode, headers, body } = await request(url, {
      method: 'POST',
      body: text,
      headers: { 'content-type': 'application/soap+xml; charset=utf-8' },
      signal,
      ...(url.startsWith('https:') && { dispatcher: this.tls.dispatcher })
    })
    return { status: statusCode, type: String(headers['content-type'] ?? ''), body }
  }

  /** A picture, whole. @throws DeviceError */
  picture(url: string): Promise<Buffer> {
    return this.whole(async (signal) => {
      const { status, headers, body } = await this.get(url, signal)
      return { status, type: headers.get('content-type') ?? '', body }
    })
  }

  get account(): Credentials | null {
    return this.credentials
  }

  /** By how many seconds the device's clock is ahead of this one; null where it does not say. */
  async clockAhead(): Promise<number | null> {
    const asked = Date.now()
    const answer = await this.ask(
      `${this.address}/onvif/device_service`,
      xml('tds:GetSystemDateAndTime'),
      false
    ).catch((error: unknown) => {
      if (isRefusal(error)) return undefined
      throw error
    })
    const utc = down(answer, 'SystemDateAndTime', 'UTCDateTime')
    if (!utc) {
      this.ahead = 0
      return null
    }
    const part = (group: string, name: string): number =>
      Number(textAt(utc, coded('places.deviceClock'), group, name))
    const theirs = Date.UTC(
      part('Date', 'Year'),
      part('Date', 'Month') - 1,
      part('Date', 'Day'),
      part('Time', 'Hour'),
      part('Time', 'Minute'),
      part('Time', 'Second')
    )
    // It says whole seconds; the half in the middle is the best guess.
    this.ahead = theirs + 500 - (asked + Date.now()) / 2
    return this.ahead / 1000
  }

  /** Whether the device has a service. */
  async has(service: Service): Promise<boolean> {
    return (await this.servicePaths()).has(NAMESPACES_OF[service])
  }

  private async servicePaths(): Promise<Map<string, string>> {
    return (this.services ??= await this.readServices())
  }

  /** As `GetServices` says, or else `GetCapabilities`; a device that refuses both has its services where most have them. */
  private async readServices(): Promise<Map<string, string>> {
    const at = `${this.address}/onvif/device_service`
    const asked = async (body: string): Promise<Element | undefined> => {
      // Anybody may ask, by the standard; some let nobody ask who has no account.
      for (const withToken of this.credentials ? [false, true] : [false])
        try {
          return await this.ask(at, body, withToken)
        } catch (error) {
          if (!isRefusal(error) || (withToken && error.kind !== 'refused')) throw error
        }
      return undefined
    }
    const answer = await asked(
      xml('tds:GetServices', {}, xml('tds:IncludeCapability', {}, 'false'))
    )
    const services = new Map(
      children(answer, 'Service').map((s) => [
        child(s, 'Namespace')?.text ?? '',
        child(s, 'XAddr')?.text ?? ''
      ])
    )
    if (services.size === 0) {
      const capabilities = child(
        await asked(xml('tds:GetCapabilities', {}, xml('tds:Category', {}, 'All'))),
        'Capabilities'
      )
      const extension = child(capabilities, 'Extension')
      for (const [name, namespace] of Object.entries(CAPABILITIES)) {
        const address = child(child(capabilities, name) ?? child(extension, name), 'XAddr')?.text
        if (address) services.set(namespace, address)
      }
    }
    if (!services.has(NAMESPACES_OF.device)) services.set(NAMESPACES_OF.device, at)
    return services
  }

  /**
   * A message to one of the device's services.
   * @param body of the message, as XML
   * @param isCacheable whether the answer seldom changes; it is frozen then
   * @returns the action that answers it
   * @throws DeviceError
   */
  async call(service: Service, body: string, isCacheable = false): Promise<Element> {
    const at = (await this.servicePaths()).get(NAMESPACES_OF[service])
    if (!at || !URL.canParse(at))
      throw new DeviceError('refused', said('devices.theDeviceHasNoService', service))
    // Only its path is taken: behind a translation of addresses a device does not know its own.
    return this.ask(this.address + new URL(at).pathname, body, true, this.withinMs, isCacheable)
  }

  /** A message to an address of the device. @param withToken whether it is said who asks @throws DeviceError */
  async ask(
    url: string,
    body: string,
    withToken: boolean,
    withinMs = this.withinMs,
    isCacheable = false
  ): Promise<Element> {
    // Tokens are made on the device's clock.
    if (withToken && this.credentials && this.ahead === null) await this.clockAhead()
    const token =
      withToken && this.credentials
        ? makeToken(
            this.credentials.username,
            this.credentials.password,
            randomBytes(16),
            Date.now() + (this.ahead ?? 0)
          )
        : null
    const text = xmlText(
      await this.whole((signal) => this.post(url, envelope(body, { token }), signal), withinMs)
    )
    try {
      const message = isCacheable ? (readCached(text) as Message) : read(text)
      const fault = faultOf(message)
      if (fault) throw fault
      return message.action
    } catch (error) {
      if (error instanceof SoapFault && error.codes.some((code) => code.endsWith('NotAuthorized')))
        throw new DeviceError(this.credentials ? 'wrong-password' : 'no-account', error.said, error)
      if (error instanceof SoapFault) throw new DeviceError('refused', error.said, error)
      if (error instanceof InputError)
        throw new DeviceError(
          'broken',
          said('devices.answerIsWrong', saidOf(error.place), error.said),
          error
        )
      throw error
    }
  }

  private checkAccepted({ status }: { status: number }): void {
    if (status === 401)
      throw new DeviceError(
        this.credentials ? 'wrong-password' : 'no-account',
        said('devices.theDeviceDoesNotAccept')
      )
  }

  /** A request whose answer goes on; only its beginning has to come in time. It is read with `partsOf`. */
  async open(url: string, signal: AbortSignal, withinMs = this.withinMs): Promise<Response> {
    const late = new AbortController()
    const timer = setTimeout(() => late.abort(new DOMException('late', 'TimeoutError')), withinMs)
    const stop = (): void => late.abort(signal.reason)
    signal.addEventListener('abort', stop)
    try {
      signal.throwIfAborted()
      const answer = await this.get(url, late.signal)
      this.checkAccepted(answer)
      if (!answer.ok)
        throw new DeviceError('broken', said('devices.theDeviceAnsweredWithHttp', answer.status))
      return answer
    } catch (error) {
      throw deviceErrorOf(error, withinMs)
    } finally {
      clearTimeout(timer)
      signal.removeEventListener('abort', stop)
    }
  }

  /** Asks for a picture or a stream; where the device asks who wants it, that is said by digest. */
  private async get(url: string, signal: AbortSignal): Promise<Response> {
    const answer = await this.fetch(url, { redirect: 'error', signal })
    const challenge =
      answer.status === 401 && this.credentials
        ? readChallenge(answer.headers.get('www-authenticate') ?? '')
        : null
    if (!challenge || !this.credentials) return answer
    await answer.body?.cancel()
    const { pathname, search } = new URL(url)
    const said = authorization(challenge, {
      method: 'GET',
      uri: pathname + search,
      ...this.credentials,
      cnonce: randomBytes(12).toString('hex'),
      count: 1
    })
    return this.fetch(url, { headers: { authorization: said }, redirect: 'error', signal })
  }

  /** One answer whole, or a DeviceError. Never reads more than an answer may have. */
  private async whole(
    ask: (signal: AbortSignal) => Promise<Answer>,
    withinMs = this.withinMs
  ): Promise<Buffer> {
    try {
      const answer = await ask(AbortSignal.timeout(withinMs))
      const parts: Uint8Array[] = []
      let bytes = 0
      for await (const part of answer.body ?? []) {
        bytes += part.length
        if (bytes > MAX_XML)
          throw new DeviceError(
            'broken',
            said('devices.theDevicesAnswerIsLarger', MAX_XML / 2 ** 20)
          )
        parts.push(part)
      }
      this.checkAccepted(answer)
      // A refusal comes with its reason in the body; anything else without one is no answer of the standard.
      if ((answer.status < 200 || answer.status > 299) && !/xml/.test(answer.type))
        throw new DeviceError('broken', said('devices.theDeviceAnsweredWithHttp', answer.status))
      return Buffer.concat(parts)
    } catch (error) {
      throw deviceErrorOf(error, withinMs)
    }
  }

  /**
   * A device must not send this server elsewhere. Behind a translation of addresses it does not know its own, so that of
   * an address of RTSP only its port and path are taken.
   */
  own(uri: string, what: Said): string {
    if (URL.canParse(uri) && /^rtsps?:$/.test(new URL(uri).protocol)) {
      const stream = new URL(uri)
      stream.hostname = new URL(this.address).hostname
      stream.username = ''
      stream.password = ''
      return stream.href
    }
    if (!URL.canParse(uri) || new URL(uri).origin !== this.address)
      throw new DeviceError('broken', said('devices.theSAddressIsNot', what, uri.slice(0, 80)))
    return uri
  }
}
