import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { InputError } from '../../core/errors.ts'
import { RULE_TYPES, type Rule, type RuleAbility } from '../../core/formats/onvif/rules.ts'
import { envelope, faultBody, readMessage } from '../../core/formats/onvif/soap.ts'
import type { Play } from '../../simulation/script.ts'
import { PullPoints } from './events.ts'
import type { Model } from './model.ts'
import { LiveScene } from './scene.ts'
import { Security } from './security.ts'
import { OPEN_ACTIONS, Refusal, answer } from './services.ts'
import { StateFile, type DeviceState } from './state.ts'

const TOPICS: Record<string, string> = {
  line: 'tns1:RuleEngine/LineDetector/Crossed',
  intrusion: 'tns1:RuleEngine/FieldDetector/ObjectsInside',
  loitering: 'tns1:RuleEngine/LoiteringDetector/ObjectIsLoitering',
  motion: 'tns1:RuleEngine/CellMotionDetector/Motion',
  tamper: 'tns1:RuleEngine/TamperDetector/Tamper'
}
const MOST_BYTES = 1 << 20
const STEP_MS = 100

/** A simulated camera on a loopback port of its own: answers the standard, sees its scene, keeps its settings. */
export class Device {
  readonly model: Model
  readonly abilities: RuleAbility[]
  readonly pullPoints = new PullPoints()
  readonly size: { width: number; height: number }
  address = ''
  private readonly file: StateFile
  private readonly security = new Security()
  private readonly scene: LiveScene
  private readonly server: Server
  private readonly began = Date.now()
  private timer: NodeJS.Timeout | undefined
  private changedAt = 0

  constructor(model: Model, play: Play, stateFile: string) {
    this.model = model
    this.abilities = model.rules.map(({ type, most, parameters, ranges }) => ({ type, most: most ?? null, parameters, ranges }))
    this.size = { width: play.scene.width, height: play.scene.height }
    this.file = new StateFile(stateFile, { accounts: model.account ? [model.account] : [], rules: [] })
    this.scene = new LiveScene(play)
    this.scene.setRules(this.state.rules, this.abilities)
    this.server = createServer((request, response) => void this.serve(request, response).catch(() => response.destroy()))
  }

  get state(): DeviceState {
    return this.file.state
  }

  /** The device's own clock. */
  now = (): number => Date.now() + this.model.clockOff * 1000

  save(): void {
    this.file.save()
  }

  async start(port = 0): Promise<this> {
    await new Promise<void>((resolve, reject) => {
      this.server.once('error', reject)
      this.server.listen(port, '127.0.0.1', resolve)
    })
    this.address = `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`
    this.timer = setInterval(() => this.step(), STEP_MS)
    return this
  }

  async close(): Promise<void> {
    clearInterval(this.timer)
    this.pullPoints.endAll()
    this.server.closeAllConnections()
    await new Promise((resolve) => this.server.close(resolve))
  }

  /** @throws Refusal when the device cannot hold the rule beside the others */
  check(rule: Rule, all: readonly Rule[]): void {
    const ability = this.abilities.find((a) => a.type === rule.type)
    if (!ability) throw new Refusal('ter:InvalidRule', `rules of type ${rule.type} are not supported`)
    const same = all.filter((r) => r.type === rule.type).length
    if (ability.most !== null && same > ability.most) throw new Refusal('ter:TooManyRules', `at most ${ability.most} rules of type ${rule.type}`)
    if (this.model.mostRules !== undefined && all.length > this.model.mostRules) throw new Refusal('ter:TooManyRules', `at most ${this.model.mostRules} rules in all`)
    for (const [name, value] of Object.entries(rule.simple)) {
      if (!ability.parameters.includes(name)) throw new Refusal('ter:InvalidRule', `${rule.type} has no parameter ${name}`)
      const range = ability.ranges[name]
      const number = Number(value.replace(/^PT|S$/g, ''))
      if (range && !(number >= range.min && number <= range.max)) throw new Refusal('ter:InvalidArgVal', `${name} is ${value}; must be from ${range.min} to ${range.max}`)
    }
  }

  keepRules(rules: Rule[]): void {
    this.state.rules = rules
    this.changedAt = Date.now()
    this.save()
    this.scene.setRules(rules, this.abilities)
  }

  /** Some devices switch a rule on again that somebody took out; with its own settings. */
  private switchBack(): void {
    const { switchesBack } = this.model
    if (!switchesBack || Date.now() - this.changedAt < switchesBack.seconds * 1000) return
    const missing = switchesBack.types.filter((type) => !this.state.rules.some((rule) => rule.type === type))
    if (!missing.length || (this.model.mostRules !== undefined && this.state.rules.length + missing.length > this.model.mostRules)) return
    this.keepRules([...this.state.rules, ...missing.map((type): Rule => ({ name: `own-${type.replace(/^tt:/, '')}`, type, simple: { Sensitivity: '50' }, points: [] }))])
  }

  private step(): void {
    this.switchBack()
    for (const trigger of this.scene.step((Date.now() - this.began) / 1000)) {
      const topic = TOPICS[trigger.kind]
      if (!topic || !RULE_TYPES[trigger.kind]) continue
      this.pullPoints.put({ topic, at: this.now(), source: { VideoSourceConfigurationToken: 'source', VideoAnalyticsConfigurationToken: 'analytics', Rule: trigger.detection }, data: { ...(trigger.target !== undefined && { ObjectId: String(trigger.target) }), ...(trigger.direction && { Direction: trigger.direction === 'leftToRight' ? 'Right' : 'Left' }), ...(trigger.kind === 'intrusion' && { IsInside: 'true' }) } })
    }
  }

  private async serve(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { pathname } = new URL(request.url ?? '/', 'http://x')
    if (request.method === 'GET' && pathname === '/snapshot.jpg') {
      response.writeHead(200, { 'content-type': 'image/jpeg', 'cache-control': 'no-store' }).end(this.scene.snapshot((Date.now() - this.began) / 1000))
      return
    }
    if (request.method !== 'POST' || !pathname.startsWith('/onvif/')) return void response.writeHead(404).end()
    const say = (status: number, body: string): void => void response.writeHead(status, { 'content-type': 'application/soap+xml; charset=utf-8' }).end(envelope(body))
    try {
      const { action, token } = readMessage(await read(request))
      // Fresh from the box anybody may make the first account, and nothing else.
      const first = this.state.accounts.length === 0 && ['CreateUsers', 'GetUsers', 'GetDeviceInformation'].includes(action.name)
      const refusal = OPEN_ACTIONS.has(action.name) || first ? null : this.security.refusal(token, this.state.accounts, this.now())
      if (refusal) return say(400, faultBody('Sender', 'ter:NotAuthorized', refusal))
      say(200, await answer(this, action, pathname))
    } catch (error) {
      if (error instanceof Refusal) say(400, faultBody('Sender', error.code, error.message))
      else if (error instanceof InputError) say(400, faultBody('Sender', 'ter:WellFormed', error.message))
      else say(500, faultBody('Receiver', 'ter:Action', (error as Error).message))
    }
  }
}

async function read(request: IncomingMessage): Promise<string> {
  const parts: Buffer[] = []
  let bytes = 0
  for await (const part of request as AsyncIterable<Buffer>) {
    bytes += part.length
    if (bytes > MOST_BYTES) throw new InputError('the message', 'is larger than 1 MB')
    parts.push(part)
  }
  return Buffer.concat(parts).toString('utf8')
}
