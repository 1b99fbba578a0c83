import { simulators as msg } from '../../core/messages/en/codes/simulators.ts'
import { Refusal } from './refusal.ts'

/** The most that a device keeps of the past, and records of what comes. */
const MAX_BEFORE = 60
const MAX_AFTER = 600

export interface Recording {
  token: string
  channel: string
  /** Seconds of the device's scenes. */
  from: number
  to: number
}

/** What a device has been told to record. Its scenes can be seen at any moment, so a recording is a stretch of them. */
export class Recordings {
  private readonly list: Recording[] = []

  /** @throws Refusal for seconds that it does not keep */
  begin(channel: string, moment: number, before: number, after: number): string {
    if (!(before >= 0 && before <= MAX_BEFORE))
      throw new Refusal('ter:InvalidArgVal', msg.beforeIsSMustBe(before, MAX_BEFORE))
    if (!(after >= 1 && after <= MAX_AFTER))
      throw new Refusal('ter:InvalidArgVal', msg.afterIsSMustBe(after, MAX_AFTER))
    const token = `recording-${this.list.length + 1}`
    this.list.push({ token, channel, from: Math.max(0, moment - before), to: moment + after })
    return token
  }

  find(token: string): Recording | null {
    return this.list.find((r) => r.token === token) ?? null
  }

  all(): readonly Recording[] {
    return this.list
  }
}
