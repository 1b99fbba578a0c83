import { randomBytes } from 'node:crypto'
import { InputError } from '../../core/errors.ts'
import { readRule, ruleXml, type Rule, type RuleAbility } from '../../core/formats/onvif/rules.ts'
import { SoapFault, envelope, faultOf, makeToken, readMessage } from '../../core/formats/onvif/soap.ts'
import { MOST_XML, child, children, content, down, textAt, xml, type Element } from '../../core/formats/onvif/xml.ts'

/** Why a device could not be spoken with, in the words of the Devices place. */
export type TroubleKind = 'offline' | 'slow' | 'wrong-password' | 'no-account' | 'broken' | 'refused'

export class Trouble extends Error {
  readonly kind: TroubleKind

  constructor(kind: TroubleKind, message: string, cause?: unknown) {
    super(message, { cause })
    this.kind = kind
  }
}

export interface Credentials {
  username: string
  password: string
}

export interface Information {
  manufacturer: string
  model: string
  firmware: string
  serial: string
}

export interface DeviceEvent {
  topic: string
  /** Milliseconds of UTC, on the device's clock. */
  at: number
  rule: string
  data: Record<string, string>
}

const ANSWERS_WITHIN_MS = 5000

/** Speaks the open standard with one device. Every call ends: with an answer, or with a Trouble that says why not. */
export class DeviceLink {
  readonly address: string
  private readonly credentials: Credentials | null
  private readonly withinMs: number
  /** Paths of the services, by the end of their namespace, as the device says. */
  private services: Map<string, string> | null = null
  /** By how much the device's clock is ahead, milliseconds; tokens are made on its clock. */
  private ahead: number | null = null

  /** @param address such as http://192.0.2.4 or http://127.0.0.1:8081 @throws InputError for what is no address */
  constructor(address: string, credentials: Credentials | null, withinMs = ANSWERS_WITHIN_MS) {
    if (!URL.canParse(address) || !/^https?:$/.test(new URL(address).protocol)) throw new InputError('address', `"${address.slice(0, 60)}" is no address; such as http://192.168.1.20`)
    this.address = new URL(address).origin
    this.credentials = credentials
    this.withinMs = withinMs
  }

  /** By how many seconds the device's clock is ahead of this one. */
  async clockAhead(): Promise<number> {
    const asked = Date.now()
    const answer = await this.ask(`${this.address}/onvif/device_service`, xml('tds:GetSystemDateAndTime'), false)
    const utc = down(answer, 'SystemDateAndTime', 'UTCDateTime')
    const part = (group: string, name: string): number => Number(textAt(utc, 'the device’s clock', group, name))
    const theirs = Date.UTC(part('Date', 'Year'), part('Date', 'Month') - 1, part('Date', 'Day'), part('Time', 'Hour'), part('Time', 'Minute'), part('Time', 'Second'))
    // It says whole seconds; the half in the middle is the best guess.
    this.ahead = theirs + 500 - (asked + Date.now()) / 2
    return this.ahead / 1000
  }

  async information(): Promise<Information> {
    const answer = await this.call('device', xml('tds:GetDeviceInformation'))
    const part = (name: string): string => child(answer, name)?.text ?? ''
    return { manufacturer: part('Manufacturer'), model: part('Model'), firmware: part('FirmwareVersion'), serial: part('SerialNumber') }
  }

  /** Makes the first account of a device fresh from the box. */
  async createAccount({ username, password }: Credentials): Promise<void> {
    await this.call('device', xml('tds:CreateUsers', {}, xml('tds:User', {}, xml('tt:Username', {}, content(username)), xml('tt:Password', {}, content(password)), xml('tt:UserLevel', {}, 'Administrator'))))
  }

  async hasAccount(): Promise<boolean> {
    return children(await this.call('device', xml('tds:GetUsers')), 'User').length > 0
  }

  /** What the device can do: its supported rules, and the ranges of their parameters. */
  async abilities(): Promise<RuleAbility[]> {
    const supported = await this.call('analytics', xml('tan:GetSupportedRules', {}, xml('tan:ConfigurationToken', {}, 'analytics')))
    const options = await this.call('analytics', xml('tan:GetRuleOptions', {}, xml('tan:ConfigurationToken', {}, 'analytics')))
    return children(child(supported, 'SupportedRules'), 'RuleDescription').map(({ attributes, children: inner }) => {
      const type = (attributes.Name ?? '').replace(/^[^:]*:/, 'tt:')
      const parameters = inner.flatMap((e) => children(e, 'SimpleItemDescription')).map((item) => item.attributes.Name ?? '')
      const own = children(options, 'RuleOptions').filter((o) => (o.attributes.RuleType ?? '').replace(/^[^:]*:/, 'tt:') === type)
      const ranges = own.flatMap((o) => {
        const range = child(o, 'FloatRange') ?? child(o, 'IntRange')
        const [min, max] = [Number(child(range, 'Min')?.text), Number(child(range, 'Max')?.text)]
        return range && Number.isFinite(min) && Number.isFinite(max) ? [[o.attributes.Name ?? '', { min, max }] as const] : []
      })
      const most = attributes.maxInstances === undefined ? null : Number(attributes.maxInstances)
      return { type, most, parameters, ranges: Object.fromEntries(ranges) }
    })
  }

  async rules(): Promise<Rule[]> {
    const answer = await this.call('analytics', xml('tan:GetRules', {}, xml('tan:ConfigurationToken', {}, 'analytics')))
    return children(answer, 'Rule').map(readRule)
  }

  createRule(rule: Rule): Promise<Element> {
    return this.call('analytics', xml('tan:CreateRules', {}, xml('tan:ConfigurationToken', {}, 'analytics'), ruleXml(rule)))
  }

  modifyRule(rule: Rule): Promise<Element> {
    return this.call('analytics', xml('tan:ModifyRules', {}, xml('tan:ConfigurationToken', {}, 'analytics'), ruleXml(rule)))
  }

  deleteRule(name: string): Promise<Element> {
    return this.call('analytics', xml('tan:DeleteRules', {}, xml('tan:ConfigurationToken', {}, 'analytics'), xml('tan:RuleName', {}, content(name))))
  }

  async snapshot(): Promise<Buffer> {
    const uri = textAt(await this.call('media', xml('trt:GetSnapshotUri', {}, xml('trt:ProfileToken', {}, 'main'))), 'the device’s answer', 'MediaUri', 'Uri')
    // A device must not send this server elsewhere.
    if (!URL.canParse(uri) || new URL(uri).origin !== this.address) throw new Trouble('broken', `the picture’s address ${uri.slice(0, 80)} is not on the device`)
    return this.fetch(uri, { method: 'GET' })
  }

  /** Starts to listen; the address of the pull point. */
  async subscribe(): Promise<string> {
    const answer = await this.call('events', xml('tev:CreatePullPointSubscription', {}, xml('tev:InitialTerminationTime', {}, 'PT60S')))
    const address = textAt(answer, 'the device’s answer', 'SubscriptionReference', 'Address')
    if (!URL.canParse(address) || new URL(address).origin !== this.address) throw new Trouble('broken', `the pull point’s address ${address.slice(0, 80)} is not on the device`)
    return address
  }

  /** What has happened since; waits up to `seconds` for something. Renews the pull point. */
  async pull(address: string, seconds: number, signal?: AbortSignal): Promise<DeviceEvent[]> {
    const answer = await this.ask(address, xml('tev:PullMessages', {}, xml('tev:Timeout', {}, `PT${seconds}S`), xml('tev:MessageLimit', {}, '100')), true, this.withinMs + seconds * 1000, signal)
    await this.ask(address, xml('wsnt:Renew', {}, xml('wsnt:TerminationTime', {}, 'PT60S')), true)
    return children(answer, 'NotificationMessage').map((notification) => {
      const message = down(notification, 'Message', 'Message')
      const items = (group: string): Record<string, string> => Object.fromEntries(children(child(message, group), 'SimpleItem').map(({ attributes }) => [attributes.Name ?? '', attributes.Value ?? '']))
      return { topic: child(notification, 'Topic')?.text ?? '', at: Date.parse(message?.attributes.UtcTime ?? ''), rule: items('Source').Rule ?? '', data: items('Data') }
    })
  }

  async unsubscribe(address: string): Promise<void> {
    await this.ask(address, xml('wsnt:Unsubscribe'), true)
  }

  private async call(service: 'device' | 'media' | 'events' | 'analytics', body: string): Promise<Element> {
    if (this.ahead === null) await this.clockAhead()
    if (!this.services) {
      const answer = await this.ask(`${this.address}/onvif/device_service`, xml('tds:GetServices', {}, xml('tds:IncludeCapability', {}, 'false')), false)
      this.services = new Map(children(answer, 'Service').map((s) => [(child(s, 'Namespace')?.text ?? '').split('/').at(-2) ?? '', child(s, 'XAddr')?.text ?? '']))
    }
    const at = this.services.get(service)
    if (!at || !URL.canParse(at)) throw new Trouble('refused', `the device has no ${service} service`)
    // Only its path is taken: behind a translation of addresses a device does not know its own.
    return this.ask(this.address + new URL(at).pathname, body, true)
  }

  private async ask(url: string, body: string, withToken: boolean, withinMs = this.withinMs, signal?: AbortSignal): Promise<Element> {
    const token = withToken && this.credentials ? makeToken(this.credentials.username, this.credentials.password, randomBytes(16), Date.now() + (this.ahead ?? 0)) : null
    const text = (await this.fetch(url, { method: 'POST', body: envelope(body, { token }), headers: { 'content-type': 'application/soap+xml; charset=utf-8' } }, withinMs, signal)).toString('utf8')
    try {
      const message = readMessage(text, 'the device’s answer')
      const fault = faultOf(message)
      if (fault) throw fault
      return message.action
    } catch (error) {
      if (error instanceof SoapFault && error.codes.some((code) => code.endsWith('NotAuthorized'))) throw new Trouble(this.credentials ? 'wrong-password' : 'no-account', error.message, error)
      if (error instanceof SoapFault) throw new Trouble('refused', error.message, error)
      if (error instanceof InputError) throw new Trouble('broken', error.message, error)
      throw error
    }
  }

  /** One request; its answer whole, or a Trouble. Never reads more than an answer may have. */
  private async fetch(url: string, init: RequestInit, withinMs = this.withinMs, signal?: AbortSignal): Promise<Buffer> {
    const late = AbortSignal.timeout(withinMs)
    try {
      const answer = await fetch(url, { ...init, redirect: 'error', signal: signal ? AbortSignal.any([late, signal]) : late })
      const parts: Uint8Array[] = []
      let bytes = 0
      for await (const part of (answer.body ?? []) as AsyncIterable<Uint8Array>) {
        bytes += part.length
        if (bytes > MOST_XML) throw new Trouble('broken', `the device’s answer is larger than ${MOST_XML / 2 ** 20} MB`)
        parts.push(part)
      }
      if (answer.status === 401) throw new Trouble(this.credentials ? 'wrong-password' : 'no-account', 'the device does not accept the account')
      // A refusal comes with its reason in the body; anything else without one is no answer of the standard.
      if (!answer.ok && !/xml/.test(answer.headers.get('content-type') ?? '')) throw new Trouble('broken', `the device answered with HTTP ${answer.status}`)
      return Buffer.concat(parts)
    } catch (error) {
      if (error instanceof Trouble) throw error
      if ((error as Error).name === 'TimeoutError') throw new Trouble('slow', `the device did not answer within ${withinMs / 1000} s`, error)
      const code = ((error as { cause?: { code?: string } }).cause?.code ?? (error as Error).message).slice(0, 80)
      throw new Trouble('offline', `the device cannot be reached (${code})`, error)
    }
  }
}
