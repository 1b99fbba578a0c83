import { md5 } from '@noble/hashes/legacy.js'
import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'

/**
 * HTTP digest access authentication, as cameras ask for it for pictures and streams. Source: RFC 7616 (and RFC 2617 for
 * challenges without `qop`), from memory; MD5, which most cameras still ask for, and SHA-256.
 */
export interface Challenge {
  realm: string
  nonce: string
  algorithm: 'MD5' | 'SHA-256'
  /** Whether the quality of protection is said in the answer. */
  qop: boolean
  opaque: string | null
}

/** `name=value` and `name="value"`, as they stand after the scheme. */
function parameters(text: string): Record<string, string> {
  return Object.fromEntries(
    [...text.matchAll(/(\w+)\s*=\s*(?:"((?:[^"\\]|\\.)*)"|([^\s,]+))/g)].map(
      ([, name = '', quoted, bare = '']) => [
        name.toLowerCase(),
        quoted?.replace(/\\(.)/g, '$1') ?? bare
      ]
    )
  )
}

/** The strongest challenge of a `WWW-Authenticate` header that can be answered; null: none. */
export function readChallenge(header: string): Challenge | null {
  const all = header
    .split(/(?:^|,)\s*(?=Digest\s)/i)
    .filter((part) => /^Digest\s/i.test(part))
    .map((part) => parameters(part.replace(/^Digest\s+/i, '')))
    .flatMap(({ realm = '', nonce, algorithm = 'MD5', qop, opaque }): Challenge[] => {
      const known = /^(MD5|SHA-256)$/i.exec(algorithm)
      if (!nonce || !known || (qop !== undefined && !qop.split(/\s*,\s*/).includes('auth')))
        return []
      return [
        {
          realm,
          nonce,
          algorithm: known[1]!.toUpperCase() as Challenge['algorithm'],
          qop: qop !== undefined,
          opaque: opaque ?? null
        }
      ]
    })
  return all.find(({ algorithm }) => algorithm === 'SHA-256') ?? all[0] ?? null
}

/** What is asked for, and by whom. */
export interface DigestRequest {
  method: string
  /** Path and query. */
  uri: string
  username: string
  password: string
  cnonce: string
  /** How many requests have been made with this nonce. */
  count: number
}

export function digestOf(
  { realm, nonce, algorithm, qop }: Challenge,
  { method, uri, username, password, cnonce, count }: DigestRequest
): string {
  const hash = (...parts: string[]): string =>
    bytesToHex((algorithm === 'MD5' ? md5 : sha256)(utf8ToBytes(parts.join(':'))))
  const [who, what] = [hash(username, realm, password), hash(method, uri)]
  return qop ? hash(who, nonce, countText(count), cnonce, 'auth', what) : hash(who, nonce, what)
}

const countText = (count: number): string => count.toString(16).padStart(8, '0')
const quote = (text: string): string => `"${text.replace(/["\\]/g, '\\$&')}"`

/** The `Authorization` header that answers a challenge. */
export function authorization(challenge: Challenge, request: DigestRequest): string {
  const { realm, nonce, algorithm, qop, opaque } = challenge
  const said = [
    `username=${quote(request.username)}`,
    `realm=${quote(realm)}`,
    `nonce=${quote(nonce)}`,
    `uri=${quote(request.uri)}`,
    `algorithm=${algorithm}`,
    `response="${digestOf(challenge, request)}"`
  ]
  if (qop)
    said.push('qop=auth', `nc=${countText(request.count)}`, `cnonce=${quote(request.cnonce)}`)
  if (opaque !== null) said.push(`opaque=${quote(opaque)}`)
  return `Digest ${said.join(', ')}`
}

/** Who answered a challenge, as a device checks it; null: nobody, or not rightly. */
export function whoAnswers(
  challenge: Challenge,
  method: string,
  header: string | undefined,
  passwordOf: (username: string) => string | undefined
): string | null {
  if (!/^Digest\s/i.test(header ?? '')) return null
  const {
    username = '',
    nonce,
    uri = '',
    response,
    nc = '',
    cnonce = ''
  } = parameters(header!.replace(/^Digest\s+/i, ''))
  const password = passwordOf(username)
  if (password === undefined || nonce !== challenge.nonce) return null
  return digestOf(challenge, {
    method,
    uri,
    username,
    password,
    cnonce,
    count: parseInt(nc, 16)
  }) === response
    ? username
    : null
}
