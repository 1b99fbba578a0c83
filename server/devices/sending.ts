import { saidOfError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import { randomUUID } from 'node:crypto'
import { wantedRules } from '../../core/devices/standing.ts'
import type { SendResult, SendingView } from '../../core/devices/views.ts'
import { differencesOf } from '../../core/formats/onvif/differences.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'
import { notFound } from '../errors.ts'
import { mapConcurrent } from '../mapConcurrent.ts'
import type { ChannelRow } from './channelQueries.ts'
import type { DeviceLink } from './link/link.ts'
import { DeviceError } from './link/deviceError.ts'
import type { Rule } from '../../core/formats/onvif/rule.ts'

/** What the channel is known to hold after a sending, and what was said on the way. */
export interface Sent {
  results: SendResult[]
  sent: Rule[]
  removedTypes: string[]
}

const same = (a: Rule, b: Rule): boolean => differencesOf(a, b).length === 0

/**
 * Sends a camera's detections to one of its channels: those that differ are written, each wholly or not at all; those
 * that the plan does not have are deleted. After an error the device is asked what it holds now: the standard's commands
 * are whole or nothing, but a cut can hide which of the two it was.
 */
export async function sendChannel(
  link: DeviceLink,
  channel: ChannelRow,
  detections: readonly Detection[],
  schedules: readonly Schedule[]
): Promise<Sent> {
  const wanted = wantedRules(detections, channel, schedules)
  const nameOf = (id: string): string => detections.find((d) => d.id === id)?.name ?? id
  const results: SendResult[] = []
  const done = new Map(
    (channel.sent ?? [])
      .filter((rule) => wanted.some(({ name }) => name === rule.name))
      .map((rule) => [rule.name, rule])
  )
  let cut: DeviceError | null = null
  const attempt = async (
    name: string,
    what: SendResult['what'],
    rule: Rule | null,
    work: () => Promise<unknown>
  ): Promise<void> => {
    const base = { channel: channel.token, detection: name, name: nameOf(name), what }
    const held = channel.held.find((r) => r.name === name)
    // Once the device is out of reach, what was not begun has certainly not happened.
    if (cut)
      return void results.push({
        ...base,
        error: said('devices.notStarted', cut.said),
        holds: held ? 'old' : 'none'
      })
    try {
      await work()
      if (rule) done.set(name, rule)
      results.push({ ...base, error: null, holds: rule ? 'new' : 'none' })
    } catch (error) {
      if (!(error instanceof DeviceError)) throw error
      if (error.kind !== 'refused') cut = error
      results.push({
        ...base,
        error: error.said,
        holds: error.kind === 'refused' ? (held ? 'old' : 'none') : 'unknown'
      })
    }
  }
  const surplus = channel.held.filter((rule) => !wanted.some(({ name }) => name === rule.name))
  // First what goes, so that there is room for what comes.
  for (const rule of surplus)
    await attempt(rule.name, 'deleted', null, () =>
      link.analysis.deleteRule(channel.token, rule.name)
    )
  for (const rule of wanted) {
    const held = channel.held.find(({ name }) => name === rule.name)
    if (held && same(rule, held)) done.set(rule.name, rule)
    else
      await attempt(rule.name, held ? 'changed' : 'created', rule, () =>
        held
          ? link.analysis.modifyRule(channel.token, rule)
          : link.analysis.createRule(channel.token, rule)
      )
  }
  if (results.some(({ holds }) => holds === 'unknown'))
    await settle(link, channel, wanted, results, done)
  return {
    results,
    sent: [...done.values()],
    removedTypes: [
      ...new Set([...channel.removedTypes, ...surplus.map(({ type }) => type)])
    ].filter((type) => !wanted.some((rule) => rule.type === type))
  }
}

/** Changes something of a device that is no rule. @param what it is, for whoever reads the result */
export async function sendChange(
  what: Pick<SendResult, 'channel' | 'detection' | 'name'>,
  work: () => Promise<unknown>
): Promise<SendResult> {
  const base = { ...what, what: 'changed' as const }
  try {
    await work()
    return { ...base, error: null, holds: 'new' }
  } catch (error) {
    if (!(error instanceof DeviceError)) throw error
    return { ...base, error: error.said, holds: error.kind === 'refused' ? 'old' : 'unknown' }
  }
}

/** Asks the device, after a cut, which of the two it holds; it may be out of reach still. */
async function settle(
  link: DeviceLink,
  channel: ChannelRow,
  wanted: readonly Rule[],
  results: SendResult[],
  done: Map<string, Rule>
): Promise<void> {
  let now: Rule[]
  try {
    now = await link.analysis.rules(channel.token)
  } catch (error) {
    if (error instanceof DeviceError) return
    throw error
  }
  for (const result of results.filter(({ holds }) => holds === 'unknown')) {
    const held = now.find(({ name }) => name === result.detection)
    const rule = wanted.find(({ name }) => name === result.detection)
    result.holds = !held ? 'none' : rule && same(rule, held) ? 'new' : 'old'
    if (result.holds === 'new' && rule) done.set(rule.name, rule)
  }
}

/** How many devices are sent to at a time, at most. */
const AT_ONCE = 8
const KEPT = 20

/** Sendings to many devices, in the background, with their progress; the last ones can be asked for again. */
export class Sendings {
  private readonly all = new Map<string, { site: string; view: SendingView }>()
  private readonly sendOne: (id: string) => Promise<SendResult[]>
  private readonly running = new Set<Promise<void>>()
  private closed = false

  constructor(sendOne: (id: string) => Promise<SendResult[]>) {
    this.sendOne = sendOne
  }

  start(site: string, devices: readonly { id: string; name: string }[]): SendingView {
    const view: SendingView = {
      id: randomUUID(),
      startedAt: Date.now(),
      finished: false,
      devices: devices.map(({ id, name }) => ({
        id,
        name,
        state: 'waiting',
        results: [],
        error: null
      }))
    }
    this.all.set(view.id, { site, view })
    for (const id of [...this.all.keys()].slice(0, -KEPT)) this.all.delete(id)
    const work = mapConcurrent(AT_ONCE, view.devices, (device) => this.one(device)).then(() => {
      view.finished = true
      this.running.delete(work)
    })
    this.running.add(work)
    return view
  }

  /** @throws ApiError when there is none of that id at the site */
  read(site: string, id: string): SendingView {
    const known = this.all.get(id)
    if (known?.site !== site) throw notFound(said('things.sending', id.slice(0, 64)))
    return known.view
  }

  async close(): Promise<void> {
    this.closed = true
    await Promise.all(this.running)
  }

  private async one(device: SendingView['devices'][number]): Promise<void> {
    if (this.closed) return
    device.state = 'sending'
    try {
      device.results = await this.sendOne(device.id)
      device.state = device.results.some((r) => r.error !== null) ? 'failed' : 'done'
    } catch (error) {
      device.error = saidOfError(error)
      device.state = 'failed'
    }
  }
}
