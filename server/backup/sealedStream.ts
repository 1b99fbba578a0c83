import { coded, said } from '../../core/messages/said.ts'
import { createCipheriv, createDecipheriv, randomBytes, scrypt } from 'node:crypto'
import { InputError } from '../../core/errors.ts'

/**
 * A stream that is sealed with a passphrase: a line that says how, then pieces of up to 1 MiB, each by itself encrypted
 * and authenticated (AES-256-GCM) under its number and whether it is the last one, so that nothing can be changed, left
 * out, put in another order or cut off unseen. After: Hoang, Reyhanitabar, Rogaway, Vizár, "Online Authenticated-
 * Encryption and its Nonce-Reuse Misuse-Resistance" (2015), the construction STREAM (from memory).
 */

const FORMAT = 'wardoptic-backup/1'
const PIECE = 2 ** 20
const TAG = 16
/** Source: RFC 7914 for the function; OWASP Password Storage Cheat Sheet for the figures (from memory). */
const COST = { N: 2 ** 17, r: 8, p: 1 }
const MAX_HEAD = 1000

interface Head {
  format: typeof FORMAT
  /** Whether a passphrase is asked for. */
  sealed: boolean
  N: number
  r: number
  p: number
  salt: string
}

const keyFor = (
  passphrase: string,
  { N, r, p, salt }: Pick<Head, 'N' | 'r' | 'p' | 'salt'>
): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    scrypt(
      passphrase.normalize('NFKC'),
      Buffer.from(salt, 'base64'),
      32,
      { N, r, p, maxmem: 256 * 2 ** 20 },
      (error, key) => (error ? reject(error) : resolve(key))
    )
  )

/** The number of a piece, and whether it is the last one; a key is used for one stream alone. */
const nonceOf = (number: number, last: boolean): Buffer => {
  const nonce = Buffer.alloc(12)
  nonce.writeUInt32BE(number, 7)
  nonce[11] = last ? 1 : 0
  return nonce
}

/** @param passphrase null: whoever has the file can read it; that it is whole is seen all the same */
export async function* encryptStream(
  content: AsyncIterable<Uint8Array>,
  passphrase: string | null
): AsyncGenerator<Buffer> {
  const head: Head = {
    format: FORMAT,
    sealed: passphrase !== null,
    ...COST,
    salt: randomBytes(16).toString('base64')
  }
  const key = await keyFor(passphrase ?? '', head)
  yield Buffer.from(`${JSON.stringify(head)}\n`)
  let number = 0
  const piece = (plain: Buffer, last: boolean): Buffer => {
    const cipher = createCipheriv('aes-256-gcm', key, nonceOf(number++, last))
    const sealed = Buffer.concat([cipher.update(plain), cipher.final()])
    const size = Buffer.alloc(4)
    size.writeUInt32BE(sealed.length)
    return Buffer.concat([size, sealed, cipher.getAuthTag()])
  }
  let waiting: Buffer[] = []
  let bytes = 0
  for await (const part of content) {
    waiting.push(Buffer.from(part))
    bytes += part.length
    if (bytes <= PIECE) continue
    const all = Buffer.concat(waiting)
    let at = 0
    for (; all.length - at > PIECE; at += PIECE) yield piece(all.subarray(at, at + PIECE), false)
    waiting = [all.subarray(at)]
    bytes = all.length - at
  }
  yield piece(Buffer.concat(waiting), true)
}

/** Takes exactly so many bytes at a time from what comes. */
class Taker {
  private readonly source: AsyncIterator<Uint8Array>
  private held: Buffer = Buffer.alloc(0)
  private ended = false

  constructor(source: AsyncIterable<Uint8Array>) {
    this.source = source[Symbol.asyncIterator]()
  }

  async take(bytes: number): Promise<Buffer | null> {
    const parts = [this.held]
    let length = this.held.length
    while (length < bytes && !this.ended) {
      const { value, done } = await this.source.next()
      if (done) this.ended = true
      else {
        parts.push(Buffer.from(value))
        length += value.length
      }
    }
    const all = parts.length === 1 ? parts[0]! : Buffer.concat(parts)
    if (all.length < bytes) {
      this.held = all
      return null
    }
    this.held = all.subarray(bytes)
    return all.subarray(0, bytes)
  }

  async line(most: number): Promise<string | null> {
    let text = ''
    while (text.length < most) {
      const byte = await this.take(1)
      if (byte === null) return null
      if (byte[0] === 10) return text
      text += byte.toString('latin1')
    }
    return null
  }
}

const FILE = coded('places.backup')

/**
 * @param passphrase asked for where the stream needs one
 * @throws InputError for what is none, is cut, was changed, or has another passphrase
 */
export async function* decryptStream(
  content: AsyncIterable<Uint8Array>,
  passphrase: () => Promise<string>
): AsyncGenerator<Buffer> {
  const taker = new Taker(content)
  const head = readHead(await taker.line(MAX_HEAD))
  const key = await keyFor(head.sealed ? await passphrase() : '', head)
  for (let number = 0; ; number++) {
    const size = await taker.take(4)
    if (size === null) throw new InputError(FILE, said('backup.isCutOffItsLast'))
    const length = size.readUInt32BE()
    if (length > PIECE)
      throw new InputError(FILE, said('backup.isDamagedPieceSaysThat', number + 1, length))
    const sealed = await taker.take(length + TAG)
    if (sealed === null) throw new InputError(FILE, said('backup.isCutOffInThe'))
    const open = (last: boolean): Buffer => {
      const decipher = createDecipheriv('aes-256-gcm', key, nonceOf(number, last))
      decipher.setAuthTag(sealed.subarray(length))
      return Buffer.concat([decipher.update(sealed.subarray(0, length)), decipher.final()])
    }
    let plain: Buffer
    let last = false
    try {
      plain = open(false)
    } catch {
      try {
        plain = open(true)
        last = true
      } catch (cause) {
        throw Object.assign(
          new InputError(
            FILE,
            number === 0
              ? said('backup.wasSealedWithAnotherPassphrase')
              : said('backup.isDamagedAtPiece', number + 1)
          ),
          { cause }
        )
      }
    }
    yield plain
    if (!last) continue
    if ((await taker.take(1)) !== null) throw new InputError(FILE, said('backup.goesOnAfterItsEnd'))
    return
  }
}

function readHead(line: string | null): Head {
  let head: Partial<Head> | null = null
  try {
    head = JSON.parse(line ?? '') as Partial<Head>
  } catch {
    // Reported below.
  }
  if (head?.format !== FORMAT || typeof head.salt !== 'string')
    throw new InputError(FILE, said('backup.isNotABackupOf', FORMAT))
  const { N, r, p } = head
  // What a file says decides how much memory its key takes.
  if (![2 ** 14, 2 ** 15, 2 ** 16, 2 ** 17].includes(N!) || r !== 8 || !(p! >= 1 && p! <= 4))
    throw new InputError(FILE, said('backup.asksForAKeyThat'))
  return head as Head
}
