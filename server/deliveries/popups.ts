import { Failure } from '../../core/errors.ts'
import { said, type Said } from '../../core/messages/said.ts'
import type { EndpointOf } from '../../core/formats/actions.ts'

export interface Popup {
  /** Of the delivery; 0: a test. */
  id: number
  alarm: number | null
  /** It is of a clip that is run as if it were live. */
  clip: boolean
  said: Said
  sound: EndpointOf<'popup'>['sound']
}

const SHOWN_WITHIN_MS = 5000

/** Somebody who has the application open. */
export interface Subscriber {
  /** The id of the site that is looked at. */
  site: string
  /** Pop-ups are for them: they may do something about alarms. */
  acts: boolean
  say: (event: string, data: unknown) => void
}

/** Who has the application open, and what is shown to them. Shown is what a browser has said that it showed. */
export class Popups {
  private readonly subscribers = new Set<Subscriber>()
  private readonly waiting = new Map<number, () => void>()

  /** @returns what ends the looking */
  look(subscriber: Subscriber): () => void {
    this.subscribers.add(subscriber)
    return () => void this.subscribers.delete(subscriber)
  }

  /** Something about alarms has changed. @param at the site; left out: wherever somebody looks */
  tell(event: string, data: unknown, at?: string): void {
    for (const { site, say } of this.subscribers)
      if (at === undefined || site === at) say(event, data)
  }

  shown(id: number): void {
    this.waiting.get(id)?.()
  }

  /** Shows it wherever the site is open. @throws Failure when nobody has shown it in time */
  async show(at: string, popup: Popup): Promise<number> {
    const acting = (): Subscriber[] =>
      [...this.subscribers].filter(({ acts, site }) => acts && site === at)
    if (!acting().length) throw new Failure(said('deliveries.nobodyOnline'))
    const seen = new Promise<void>((resolve, reject) => {
      const late = setTimeout(
        () => reject(new Failure(said('deliveries.notShown', SHOWN_WITHIN_MS / 1000))),
        SHOWN_WITHIN_MS
      )
      this.waiting.set(popup.id, () => {
        clearTimeout(late)
        resolve()
      })
    }).finally(() => this.waiting.delete(popup.id))
    for (const { say } of acting()) say('popup', popup)
    await seen
    return acting().length
  }
}
