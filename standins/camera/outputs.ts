import type { Model } from './model.ts'
import { Refusal } from './refusal.ts'

/** How long a relay stays closed when it is pulsed. */
export const PULSE_SECONDS = 3
const MOST_SECONDS = 60

/** What a device can switch: each is active until a moment. */
export class Outputs {
  readonly list: Model['outputs']
  private readonly until = new Map<string, number>()

  constructor(list: Model['outputs']) {
    this.list = list
  }

  isActive(token: string, now: number): boolean {
    return (this.until.get(token) ?? 0) > now
  }

  /** @throws Refusal for an output that is not there, or seconds that are out of range */
  activate(token: string, now: number, seconds: number): void {
    this.find(token)
    if (!(seconds >= 1 && seconds <= MOST_SECONDS)) throw new Refusal('ter:InvalidArgVal', `${seconds} s; must be from 1 to ${MOST_SECONDS}`)
    this.until.set(token, now + seconds * 1000)
  }

  release(token: string): void {
    this.find(token)
    this.until.delete(token)
  }

  private find(token: string): void {
    if (!this.list.some((output) => output.token === token)) throw new Refusal('ter:RelayToken', `there is no output ${token}`)
  }
}
