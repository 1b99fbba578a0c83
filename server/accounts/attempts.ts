import { said } from '../../core/messages/said.ts'
import { tooMany } from '../errors.ts'

/** So many wrong passwords in a row are looked at without a pause. */
const FREE_TRIES = 5
const FIRST_PAUSE_MS = 30_000
const LONGEST_PAUSE_MS = 15 * 60_000
/** At one name, by all who are not known, in an hour (OWASP ASVS 4.0.3, 2.2.1: no more than 100 an hour). */
const MAX_PER_NAME = 100
const HOUR_MS = 60 * 60_000
/** What is remembered of guesses is bounded: the one that was looked at longest ago is forgotten. */
const MAX_REMEMBERED = 10_000

interface Count {
  times: number
  /** Until when the next one is not looked at; of a name, until when this is counted. */
  until: number
}

/** Least recently used first: a Map keeps the order in which keys were set. */
class Counts {
  private readonly counts = new Map<string, Count>()

  get(key: string): Count | undefined {
    return this.counts.get(key)
  }

  set(key: string, count: Count): void {
    this.counts.delete(key)
    this.counts.set(key, count)
    const [oldest] = this.counts.keys()
    if (this.counts.size > MAX_REMEMBERED && oldest !== undefined) this.counts.delete(oldest)
  }

  delete(key: string): void {
    this.counts.delete(key)
  }
}

/** Where a guess comes from. */
export interface Guesser {
  /** The network address. */
  address: string
  /** The browser's mark of an earlier sign-in under this very name; null: it has none. */
  device: string | null
}

/**
 * Slows guessing of passwords. Each try is counted before the password is looked at, so that many at once are as many;
 * one that turns out right is taken back. Counted are tries per address and name. A browser that has signed in under the
 * name before is counted by itself: others who guess at the name do not lock it out.
 * Source: OWASP, "Slow Down Online Guessing Attacks with Device Cookies" (from memory); ASVS 4.0.3, 2.2.1.
 */
export class Attempts {
  private readonly inARow = new Counts()
  private readonly perName = new Counts()
  private readonly now: () => number

  /** @param now milliseconds of a clock that nobody sets */
  constructor(now: () => number = () => performance.now()) {
    this.now = now
  }

  /** @returns what to call when the password was right @throws ApiError when the next try has to wait */
  begin({ address, device }: Guesser, username: string): () => void {
    const now = this.now()
    const key = device === null ? `address ${address} ${username}` : `device ${device} ${username}`
    const before = this.inARow.get(key)
    if (before && before.times >= FREE_TRIES && before.until > now)
      throw this.wait(before.until - now)
    const name = this.perName.get(username)
    const hour = name && name.until > now ? name : { times: 0, until: now + HOUR_MS }
    if (device === null && hour.times >= MAX_PER_NAME) throw this.wait(hour.until - now)
    const times = (before?.times ?? 0) + 1
    // A pause begins with the fifth; each one after it doubles it.
    const pause =
      times < FREE_TRIES
        ? 0
        : Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (times - FREE_TRIES))
    this.inARow.set(key, { times, until: now + pause })
    if (device === null) this.perName.set(username, { ...hour, times: hour.times + 1 })
    return () => {
      this.inARow.delete(key)
      const then = this.perName.get(username)
      if (device === null && then)
        this.perName.set(username, { ...then, times: Math.max(0, then.times - 1) })
    }
  }

  private wait(ms: number): Error {
    return tooMany(said('accounts.tooManyWrongPasswordsTry', Math.ceil(ms / 1000)))
  }
}
