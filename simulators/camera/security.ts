import { simulators as msg } from '../../core/messages/en/codes/simulators.ts'
import { randomBytes } from 'node:crypto'
import { whoAnswers, type Challenge } from '../../core/formats/onvif/httpDigest.ts'
import { passwordDigest, type UsernameToken } from '../../core/formats/onvif/soap.ts'
import type { Account } from './state.ts'

/** A token older, or further ahead, than this on the device's clock is refused. */
const CLOCK_SECONDS = 10
/** For so long a nonce is remembered, so that a message that was overheard cannot be sent again. */
const REMEMBERED_SECONDS = 60

/**
 * Checks the tokens of messages: account, digest, clock, nonce used once (source: OASIS UsernameToken Profile 1.0), and
 * who asks for pictures, by HTTP digest.
 */
export class Security {
  private readonly seen = new Map<string, number>()
  private readonly challenge: Challenge = {
    realm: 'camera',
    nonce: randomBytes(16).toString('hex'),
    algorithm: 'MD5',
    qop: true,
    opaque: null
  }

  /** What somebody is asked who wants a picture. */
  get question(): string {
    return `Digest realm="${this.challenge.realm}", qop="auth", algorithm=MD5, nonce="${this.challenge.nonce}"`
  }

  /** The same over RTSP, whose clients often know no `qop`: they answer in the form of RFC 2069. */
  get streamQuestion(): string {
    return `Digest realm="${this.challenge.realm}", nonce="${this.challenge.nonce}"`
  }

  /** Whether a request for a picture or a stream names an account of the device. */
  mayLook(
    method: string,
    authorization: string | undefined,
    accounts: readonly Account[],
    isStream = false
  ): boolean {
    return (
      whoAnswers(
        { ...this.challenge, qop: !isStream },
        method,
        authorization,
        (name) => accounts.find((a) => a.username === name)?.password
      ) !== null
    )
  }

  /** @param now milliseconds of UTC on the device's clock @returns why it is refused, or null */
  refusal(token: UsernameToken | null, accounts: readonly Account[], now: number): string | null {
    if (!token) return msg.senderNotAuthorizedNoToken
    const account = accounts.find((a) => a.username === token.username)
    let digest = ''
    try {
      if (account) digest = passwordDigest(token.nonce, token.created, account.password)
    } catch {
      return msg.senderNotAuthorizedTheNonce
    }
    if (!account || digest !== token.digest) return msg.senderNotAuthorizedWrongUser
    if (!(Math.abs(Date.parse(token.created) - now) <= CLOCK_SECONDS * 1000))
      return msg.senderNotAuthorizedTheToken
    for (const [nonce, at] of this.seen)
      if (now - at > REMEMBERED_SECONDS * 1000) this.seen.delete(nonce)
    if (this.seen.has(token.nonce)) return msg.senderNotAuthorizedThisNonce
    this.seen.set(token.nonce, now)
    return null
  }
}
