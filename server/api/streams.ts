import { said } from '../../core/messages/said.ts'
import { setMaxListeners } from 'node:events'
import type { ServerResponse } from 'node:http'
import type { FastifyReply, FastifyRequest } from 'fastify'
import type { Sessions } from '../accounts/sessions.ts'
import { tooMany } from '../errors.ts'
import { headersOf } from './plugin.ts'

/** How much one account may have open at a time: a few windows, each with pictures and alarms. */
const MAX_OPEN = 24
/**
 * How often the session is checked; that also tells proxies on the way that
 * somebody is listening.
 */
const LOOK_MS = 15_000

/** An answer that goes on until somebody ends it. */
export interface LiveAnswer {
  raw: ServerResponse
  /** Ends with the answer. */
  signal: AbortSignal
}

/** Answers that go on, each for as long as the session that asked for it. */
export class LiveAnswers {
  private readonly sessions: Sessions

  constructor(sessions: Sessions) {
    this.sessions = sessions
  }

  /** @throws ApiError when the account has too many open */
  allowOne({ account }: FastifyRequest): void {
    if (this.sessions.openOf(account!.id) >= MAX_OPEN)
      throw tooMany(said('api.youHaveLivePicturesOr', MAX_OPEN))
  }

  /** Begins an answer that is written by hand. @throws ApiError when the account has too many open */
  begin(request: FastifyRequest, reply: FastifyReply, type: string): LiveAnswer {
    this.allowOne(request)
    reply.hijack()
    const { raw } = reply
    raw.writeHead(200, { ...headersOf(reply), 'content-type': type })
    return { raw, signal: this.whileSignedIn(request, reply) }
  }

  /** Ends an answer when its session ends. @returns what ends with the answer */
  whileSignedIn({ session }: FastifyRequest, { raw }: FastifyReply): AbortSignal {
    const ended = new AbortController()
    // One answer may show all cameras.
    setMaxListeners(0, ended.signal)
    const end = (): void => void raw.destroy()
    const forget = this.sessions.whileIn(session!, end)
    const look = async (): Promise<void> => {
      // While the database is away nobody can tell; the next look will.
      if (!(await this.sessions.isRunning(session!).catch(() => true))) end()
    }
    const timer = setInterval(() => void look(), LOOK_MS)
    raw.on('close', () => {
      clearInterval(timer)
      forget()
      ended.abort()
    })
    // It may have ended while this was begun.
    void look()
    return ended.signal
  }
}

/** Server-sent events. */
export const eventText = (event: string, data: unknown): string =>
  `event: ${event}\ndata: ${JSON.stringify(data)}\n\n`
