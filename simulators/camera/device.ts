import { errorWords } from '../../core/messages/errorWords.ts'
import { simulators as msg } from '../../core/messages/en/codes/simulators.ts'
import { coded, said } from '../../core/messages/said.ts'
import { classNames } from '../../core/formats/onvif/parameters.ts'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { createServer as createTlsServer, Server as TlsServer } from 'node:https'
import type { AddressInfo } from 'node:net'
import type { Trigger } from '../../core/detections/index.ts'
import { InputError } from '../../core/errors.ts'
import type { LiveFrame } from '../../core/devices/views.ts'
import { metadataXml } from '../../core/formats/onvif/metadata.ts'
import { localName, type Rule } from '../../core/formats/onvif/rule.ts'
import { envelope, faultBody, readMessage } from '../../core/formats/onvif/soap.ts'
import type { Measurer } from '../measuring.ts'
import type { Play } from '../../simulation/script.ts'
import { DateTime } from 'luxon'
import type { Contacts } from '../contacts.ts'
import { Channel } from './channel.ts'
import { PullPoints, type Notification } from './events.ts'
import type { ChannelModel, Lack, Model } from './model.ts'
import { Outputs } from './outputs.ts'
import { playback } from './playback.ts'
import { ownCertificate } from './ownCertificate.ts'
import { Recordings } from './recordings.ts'
import { Refusal } from './refusal.ts'
import { LiveScene, TIME_ZONE } from './scene.ts'
import { Security } from './security.ts'
import { OPEN_ACTIONS, answer } from './services/index.ts'
import { StateFile, type DeviceState } from './state.ts'
import { metadataMedia } from './rtsp/metadata.ts'
import { PictureEncoder } from './rtsp/pictures.ts'
import { RtspServer } from './rtsp/server.ts'
import { streamMetadata, streamPictures } from './streams.ts'

const TOPICS: Partial<Record<Trigger['kind'], string>> = {
  line: 'tns1:RuleEngine/LineDetector/Crossed',
  intrusion: 'tns1:RuleEngine/FieldDetector/ObjectsInside',
  loitering: 'tns1:RuleEngine/LoiteringDetector/ObjectIsLoitering',
  motion: 'tns1:RuleEngine/CellMotionDetector/Motion',
  tamper: 'tns1:RuleEngine/TamperDetector/Tamper',
  entry: 'tns1:RuleEngine/EntryDetector/Entered',
  exit: 'tns1:RuleEngine/ExitDetector/Left',
  classMotion: 'tns1:RuleEngine/ClassMotionDetector/Motion',
  face: 'tns1:RuleEngine/FaceDetector/Face'
}
const MAX_BYTES = 1 << 20
const STEP_MS = 100
/** What anybody may ask before there is an account. */
const FIRST_ACTIONS = ['CreateUsers', 'GetUsers', 'GetDeviceInformation']

export interface Surroundings {
  playOf: (channel: ChannelModel) => Play
  /** Measures the pictures of a play; left out: rules that look at pictures never fire. */
  measuresOf?: Measurer
  /** Channels of other devices, for routes to them. */
  channelOf?: (device: string) => Channel | undefined
  /** Contacts that somebody holds by hand. */
  contacts?: Contacts
}

/**
 * A simulated camera or recorder on a loopback port of its own: answers the standard, sees its
 * scenes, keeps its settings.
 */
export class Device {
  readonly model: Model
  readonly channels: Channel[]
  readonly outputs: Outputs
  readonly recordings = new Recordings()
  readonly pullPoints = new PullPoints()
  address = ''
  /** Where its streams are; null: it has none over RTSP. */
  streams: string | null = null
  private readonly file: StateFile
  private readonly security = new Security()
  private readonly server: Server
  private readonly rtsp: RtspServer | null
  private readonly encoders: ReadonlyMap<string, PictureEncoder>
  private readonly began = Date.now()
  private readonly contacts = new Map<string, boolean>()
  private readonly byHand: Contacts | undefined
  private timer: NodeJS.Timeout | undefined
  private changedAt = 0

  constructor(
    model: Model,
    { playOf, measuresOf, channelOf, contacts }: Surroundings,
    stateFile: string
  ) {
    this.model = model
    this.file = new StateFile(stateFile, {
      accounts: model.account ? [model.account] : [],
      channels: Object.fromEntries(
        model.channels.map(({ token, mode }) => [token, { rules: [], mode: mode ?? null }])
      ),
      outputs: {},
      clock: null,
      filters: {},
      surroundings: {},
      silent: []
    })
    this.byHand = contacts
    this.outputs = new Outputs(
      model.outputs,
      this.state.outputs,
      () => this.save(),
      (token, active) =>
        this.pullPoints.put({
          topic: 'tns1:Device/Trigger/Relay',
          operation: 'Changed',
          at: this.now(),
          source: { OutputToken: token },
          data: { LogicalState: active ? 'active' : 'inactive' }
        })
    )
    const changed = (): void => {
      this.changedAt = Date.now()
      this.save()
    }
    this.channels = model.channels.map(
      (channel) =>
        new Channel(
          channel,
          new LiveScene(playOf(channel), measuresOf),
          this.state.channels[channel.token]!,
          changed,
          channel.through === undefined ? null : (channelOf?.(channel.through) ?? null)
        )
    )
    this.encoders = new Map(
      this.channels.map(({ token, scene }) => [
        token,
        new PictureEncoder(() => scene.snapshot(this.moment()))
      ])
    )
    this.rtsp = model.rtsp
      ? new RtspServer({
          media: async (path) => {
            const channel = this.channels.find(({ token }) => path === `/stream/${token}`)
            return channel
              ? [
                  await this.encoders.get(channel.token)!.media(),
                  ...(this.has('analytics') ? [metadataMedia(() => this.documentOf(channel))] : [])
                ]
              : null
          },
          mayLook: (method, authorization) =>
            this.security.mayLook(method, authorization, this.state.accounts, true),
          question: () => this.security.streamQuestion
        })
      : null
    const serve = (request: IncomingMessage, response: ServerResponse): void =>
      void this.serve(request, response).catch(() => response.destroy())
    this.server = model.tls ? createTlsServer(serve) : createServer(serve)
  }

  get state(): DeviceState {
    return this.file.state
  }

  /** The device's own clock. */
  now = (): number => Date.now() + this.clockOff * 1000

  /** Seconds by which its clock is ahead. */
  private get clockOff(): number {
    return this.state.clock?.off ?? this.model.clockOff
  }

  /** Seconds since it was started: the moment of its scenes. */
  moment = (): number => (Date.now() - this.began) / 1000

  has(ability: Lack): boolean {
    return !this.model.lacks.includes(ability)
  }

  save(): void {
    this.file.save()
  }

  channel(token: string): Channel {
    const found = this.channels.find((channel) => channel.token === token)
    if (!found) throw new Refusal('ter:NoConfig', msg.thereIsNoConfiguration(token.slice(0, 40)))
    return found
  }

  async start(port = 0): Promise<this> {
    if (this.server instanceof TlsServer) this.server.setSecureContext(await ownCertificate())
    await new Promise<void>((resolve, reject) => {
      this.server.once('error', reject)
      this.server.listen(port, '127.0.0.1', resolve)
    })
    this.address = `${this.model.tls ? 'https' : 'http'}://127.0.0.1:${(this.server.address() as AddressInfo).port}`
    if (this.rtsp) this.streams = `rtsp://127.0.0.1:${(await this.rtsp.start()).port}/stream`
    this.timer = setInterval(() => this.step(), STEP_MS)
    return this
  }

  async close(): Promise<void> {
    clearInterval(this.timer)
    this.pullPoints.endAll()
    this.server.closeAllConnections()
    await this.rtsp?.close()
    await Promise.all([...this.encoders.values()].map((encoder) => encoder.close()))
    await new Promise((resolve) => this.server.close(resolve))
  }

  isSet(input: Model['inputs'][number]): boolean {
    return (
      input.contact !== undefined &&
      (this.byHand?.get(input.contact) ??
        this.channels[0]!.scene.contact(input.contact, this.moment()))
    )
  }

  inputEvent(input: Model['inputs'][number], operation: Notification['operation']): Notification {
    return {
      topic: 'tns1:Device/Trigger/DigitalInput',
      operation,
      at: this.now(),
      source: { InputToken: input.token },
      data: { LogicalState: String(this.isSet(input)) }
    }
  }

  /** Some devices restore a rule that was deleted, with settings of their own. */
  private switchBack(): void {
    const { switchesBack } = this.model
    if (!switchesBack || Date.now() - this.changedAt < switchesBack.seconds * 1000) return
    const [channel] = this.channels as [Channel]
    const missing = switchesBack.types.filter(
      (type) => !channel.rules.some((rule) => rule.type === type)
    )
    if (
      !missing.length ||
      (channel.model.mostRules !== undefined &&
        channel.rules.length + missing.length > channel.model.mostRules)
    )
      return
    channel.keep([
      ...channel.rules,
      ...missing.map((type): Rule => ({
        name: `own-${localName(type)}`,
        type,
        simple: { Sensitivity: '50' },
        points: []
      }))
    ])
  }

  private step(): void {
    this.switchBack()
    this.outputs.step(this.now())
    const moment = this.moment()
    for (const channel of this.channels)
      for (const trigger of channel.step(moment, this.began + this.clockOff * 1000)) {
        const topic = TOPICS[trigger.kind]
        const cls = channel.scene.classOf(trigger, moment)
        if (topic)
          this.pullPoints.put({
            topic,
            operation: 'Changed',
            at: this.now(),
            source: {
              VideoSourceConfigurationToken: `source-${channel.token}`,
              VideoAnalyticsConfigurationToken: channel.token,
              Rule: trigger.detection
            },
            data: {
              ...(trigger.target !== undefined && { ObjectId: String(trigger.target) }),
              ...(cls && cls !== 'unknown' && { ClassTypes: classNames[cls] }),
              ...(trigger.direction && {
                Direction: trigger.direction === 'leftToRight' ? 'Right' : 'Left'
              }),
              ...(trigger.kind === 'intrusion' && { IsInside: 'true' }),
              ...(trigger.cause && { Cause: trigger.cause })
            }
          })
        this.outputs.fired(
          `${channel.token}/${trigger.detection}`,
          this.now(),
          this.wall(channel.scene.later(moment))
        )
      }
    for (const input of this.model.inputs) {
      const set = this.isSet(input)
      if ((this.contacts.get(input.token) ?? set) !== set)
        this.pullPoints.put(this.inputEvent(input, 'Changed'))
      this.contacts.set(input.token, set)
    }
  }

  private async serve(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { pathname } = new URL(request.url ?? '/', 'http://x')
    if (request.method === 'GET') return this.show(pathname, request, response)
    if (request.method !== 'POST' || !pathname.startsWith('/onvif/'))
      return void response.writeHead(404).end()
    const say = (status: number, body: string): void =>
      void response
        .writeHead(status, { 'content-type': 'application/soap+xml; charset=utf-8' })
        .end(envelope(body))
    try {
      const { action, token } = readMessage(await read(request))
      // Fresh from the box anybody may make the first account, and nothing else.
      const first = this.state.accounts.length === 0 && FIRST_ACTIONS.includes(action.name)
      const refusal =
        OPEN_ACTIONS.has(action.name) || first
          ? null
          : this.security.refusal(token, this.state.accounts, this.now())
      if (refusal) return say(400, faultBody('Sender', 'ter:NotAuthorized', refusal))
      const gone = new AbortController()
      response.on('close', () => gone.abort())
      say(200, await answer(this, action, pathname, gone.signal))
    } catch (error) {
      if (error instanceof Refusal) say(400, faultBody('Sender', error.code, error.message))
      else if (error instanceof InputError)
        say(400, faultBody('Sender', 'ter:WellFormed', errorWords(error)))
      else say(500, faultBody('Receiver', 'ter:Action', (error as Error).message))
    }
  }

  /** What its analysis sees now. */
  private frameOf({ scene, token }: Channel): LiveFrame {
    const isSilent = this.state.silent.includes(token)
    return { at: this.now(), targets: isSilent ? [] : scene.targets(this.moment()) }
  }

  /** That as a document of metadata. */
  documentOf = (channel: Channel): string => metadataXml(this.frameOf(channel))

  /** Minutes since Monday on its wall clock, or so much later. */
  private wall(later: number): number {
    const at = DateTime.fromMillis(this.now() + later, { zone: TIME_ZONE })
    return (at.weekday - 1) * 1440 + at.hour * 60 + at.minute
  }

  private async show(
    path: string,
    request: IncomingMessage,
    response: ServerResponse
  ): Promise<void> {
    const recording = this.recordings.find(/^\/recording\/([\w-]+)$/.exec(path)?.[1] ?? '')
    const [, what, token] = /^\/(snapshot|stream|metadata)\/([\w-]+)$/.exec(path) ?? []
    const channel = this.channels.find((c) => c.token === (recording?.channel ?? token))
    if (!channel || (what === 'snapshot' && !this.has('snapshot')))
      return void response.writeHead(404).end()
    if (!this.security.mayLook('GET', request.headers.authorization, this.state.accounts))
      return void response.writeHead(401, { 'www-authenticate': this.security.question }).end()
    if (recording) {
      if (recording.to > this.moment()) return void response.writeHead(404).end()
      const film = await playback(recording.from, recording.to, (seconds) =>
        channel.scene.snapshot(seconds)
      )
      return void response
        .writeHead(200, { 'content-type': 'video/mp4', 'content-length': film.length })
        .end(film)
    }
    if (what === 'stream')
      return streamPictures(response, () => channel.scene.snapshot(this.moment()))
    if (what === 'metadata') return streamMetadata(response, () => this.frameOf(channel))
    // It keeps the pictures of the last minute.
    const ago = Math.min(
      60,
      Math.max(0, Number(new URL(request.url ?? '/', 'http://x').searchParams.get('ago') ?? 0) || 0)
    )
    const picture = channel.scene.snapshot(Math.max(0, this.moment() - ago))
    if (!picture) return void response.writeHead(503).end()
    response
      .writeHead(200, { 'content-type': 'image/jpeg', 'cache-control': 'no-store' })
      .end(picture)
  }
}

async function read(request: IncomingMessage): Promise<string> {
  const parts: Buffer[] = []
  let bytes = 0
  for await (const part of request as AsyncIterable<Buffer>) {
    bytes += part.length
    if (bytes > MAX_BYTES)
      throw new InputError(coded('places.message'), said('simulators.isLargerThan1Mb'))
    parts.push(part)
  }
  return Buffer.concat(parts).toString('utf8')
}
