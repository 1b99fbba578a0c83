import { simulators as msg } from '../../core/messages/en/codes/simulators.ts'
import { readHours } from '../../core/formats/onvif/hours.ts'
import { readWave } from '../../core/formats/wave.ts'
import type { OutputSetting } from '../../core/devices/outputs.ts'
import { STROBE_PATTERNS } from '../../core/formats/actions.ts'
import { WEEKDAYS } from '../../core/formats/plan.ts'
import type { Model } from './model.ts'
import { Refusal } from './refusal.ts'

/** How long a relay stays closed when it is pulsed by the standard's command. */
export const PULSE_SECONDS = 3
const MAX_SECONDS = 600

type Items = Readonly<Record<string, string>>

/** What an output does now. */
export interface Acting {
  /** Until when, milliseconds of UTC; Infinity: until it is released. */
  until: number
  since: number
  settings: Items
  voice: Buffer | null
}

/** An output as it is set up on the device. */
export interface SavedOutput extends OutputSetting {
  /** Base64. */
  voice: string | null
}

const seconds = (items: Items, most: number): number => {
  const value = Number(/^PT(\d+(?:\.\d+)?)S$/.exec(items.Time ?? '')?.[1] ?? NaN)
  if (!(value >= 1 && value <= most))
    throw new Refusal('ter:InvalidArgVal', msg.timeIsMustBe(items.Time ?? msg.notGiven, most))
  return value
}

/** What a device can switch: how each is set up, and until when it is active. */
export class Outputs {
  readonly list: Model['outputs']
  private readonly kept: Record<string, SavedOutput>
  private readonly changed: (token: string, active: boolean) => void
  private readonly save: () => void
  private readonly acting = new Map<string, Acting>()

  /** @param kept how outputs are set up, by token; written to @param changed one has become active, or at rest */
  constructor(
    list: Model['outputs'],
    kept: Record<string, SavedOutput>,
    save: () => void,
    changed: (token: string, active: boolean) => void
  ) {
    this.list = list
    this.kept = kept
    this.save = save
    this.changed = changed
  }

  isActive(token: string, now: number): boolean {
    return (this.acting.get(token)?.until ?? 0) > now
  }

  /** What it does, or did last. */
  act(token: string): Acting | null {
    return this.acting.get(token) ?? null
  }

  settingOf(token: string): SavedOutput | null {
    return this.kept[token] ?? null
  }

  /** @throws Refusal for an output that is not there, or settings that it cannot do */
  set(token: string, setting: SavedOutput): void {
    this.check(
      token,
      setting.settings,
      setting.voice === null ? null : Buffer.from(setting.voice, 'base64')
    )
    readHours(setting.hours)
    this.kept[token] = setting
    this.save()
  }

  /** @throws Refusal for an output that is not there, or settings that it cannot do */
  activate(token: string, now: number, settings: Items, voice: Buffer | null): void {
    const lasts = this.check(token, settings, voice)
    this.acting.set(token, { since: now, until: now + lasts * 1000, settings, voice })
    this.changed(token, true)
  }

  release(token: string, now: number): void {
    this.find(token)
    const acting = this.acting.get(token)
    if (acting) acting.until = Math.min(acting.until, now)
  }

  /** Those that were active and are at rest now say so. */
  step(now: number): void {
    for (const [token, acting] of this.acting)
      if (acting.until <= now && acting.since >= 0) {
        acting.since = -1
        this.changed(token, false)
      }
  }

  /**
   * A rule of the device has triggered: its outputs act, if their own schedule allows.
   * @param wall minutes since Monday on the device's clock
   */
  fired(rule: string, now: number, wall: number): void {
    for (const { token } of this.list) {
      const kept = this.kept[token]
      if (kept?.rules.includes(rule) && inHours(kept.hours, wall))
        this.activate(
          token,
          now,
          kept.settings,
          kept.voice === null ? null : Buffer.from(kept.voice, 'base64')
        )
    }
  }

  /** Seconds for which it would act. */
  private check(token: string, items: Items, voice: Buffer | null): number {
    const { kind } = this.find(token)
    if (kind === 'strobe') {
      if (
        items.Pattern !== undefined &&
        !(STROBE_PATTERNS as readonly string[]).includes(items.Pattern)
      )
        throw new Refusal(
          'ter:InvalidArgVal',
          msg.patternIsMustBe(items.Pattern, STROBE_PATTERNS.join(', '))
        )
      return seconds(items, 60)
    }
    if (kind === 'speaker') {
      const [repeats, volume] = [Number(items.Repeats ?? 1), Number(items.Volume ?? 100)]
      if (!(repeats >= 1 && repeats <= 50))
        throw new Refusal('ter:InvalidArgVal', msg.repeatsIsMustBe(items.Repeats))
      if (!(volume >= 1 && volume <= 100))
        throw new Refusal('ter:InvalidArgVal', msg.volumeIsMustBe(items.Volume))
      return voice ? readWave(voice).seconds * repeats : seconds(items, 60)
    }
    if (kind === 'relay' && items.Mode === 'untilAcknowledged') return Infinity
    return seconds(items, kind === 'relay' ? MAX_SECONDS : 60)
  }

  private find(token: string): Model['outputs'][number] {
    const found = this.list.find((output) => output.token === token)
    if (!found) throw new Refusal('ter:RelayToken', msg.thereIsNoOutput(token))
    return found
  }
}

/** Whether a minute of the week is in hours; no hours: always. */
function inHours(hours: string, wall: number): boolean {
  if (!hours) return true
  const minutes = (text: string): number => Number(text.slice(0, 2)) * 60 + Number(text.slice(3))
  const day = Math.floor(wall / 1440)
  const within = wall - day * 1440
  return readHours(hours)[WEEKDAYS[day]!].some(
    ([from, to]) => within >= minutes(from) && within < minutes(to)
  )
}
