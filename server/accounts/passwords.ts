import { said } from '../../core/messages/said.ts'
import { createHmac, randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto'
import { InputError } from '../../core/errors.ts'
import { Limiter } from '../../core/limiter.ts'
import { tooMany } from '../errors.ts'

/**
 * Cost of a guess. Source: RFC 7914 for the function; OWASP Password Storage Cheat Sheet for the
 * figures (from memory).
 */
const COST = { N: 2 ** 15, r: 8, p: 3, maxmem: 64 * 2 ** 20 } satisfies ScryptOptions
const BYTES = 32

/** Each takes a thread of Node's four for a quarter of a second: files and pictures must get on beside them. */
const AT_ONCE = 2
const MAX_WAITING = 16

const turns = new Limiter(AT_ONCE, MAX_WAITING, () =>
  tooMany(said('accounts.tooManySignInsAtOnce'))
)

const derive = (
  password: string,
  salt: Buffer,
  { N, r, p }: Pick<typeof COST, 'N' | 'r' | 'p'>
): Promise<Buffer> =>
  turns.take(
    () =>
      new Promise((resolve, reject) =>
        scrypt(
          password.normalize('NFKC'),
          salt,
          BYTES,
          { N, r, p, maxmem: COST.maxmem },
          (error, key) => (error ? reject(error) : resolve(key))
        )
      )
  )

const keyed = (key: Buffer, secret: Buffer): Buffer =>
  createHmac('sha256', secret).update(key).digest()

/**
 * A password as it is kept: `scrypt-keyed$N$r$p$salt$hash`.
 *
 * @param secret known to this server alone, kept apart from the database (ASVS 4.0.3, 2.4.5): who reads the database
 * cannot even begin to guess
 */
export async function hashed(password: string, secret: Buffer): Promise<string> {
  const salt = randomBytes(16)
  const key = keyed(await derive(password, salt, COST), secret)
  return [
    'scrypt-keyed',
    COST.N,
    COST.r,
    COST.p,
    salt.toString('base64'),
    key.toString('base64')
  ].join('$')
}

/**
 * Whether a password is the one that is kept, keyed or (`scrypt$…`) from before. Takes as long
 * where there is none to compare with.
 */
export async function isPassword(
  password: string,
  kept: string | null,
  secret: Buffer
): Promise<boolean> {
  const [form, n, r, p, salt, hash] = (
    kept ??
    `scrypt$${COST.N}$${COST.r}$${COST.p}$${Buffer.alloc(16).toString('base64')}$${Buffer.alloc(BYTES).toString('base64')}`
  ).split('$') as [string, string, string, string, string, string]
  if (hash === undefined) return false
  const plain = await derive(password, Buffer.from(salt, 'base64'), {
    N: Number(n),
    r: Number(r),
    p: Number(p)
  })
  return (
    timingSafeEqual(
      form === 'scrypt-keyed' ? keyed(plain, secret) : plain,
      Buffer.from(hash, 'base64')
    ) && kept !== null
  )
}

let common: Promise<ReadonlySet<string>> | undefined

/**
 * Refuses what is guessed first: the most common passwords that have leaked (ASVS 4.0.3, 2.1.7; the list is that of
 * @zxcvbn-ts/language-common), and one's own names.
 *
 * @param own names that it must not be
 * @throws InputError
 */
export async function refuseCommon(
  password: string,
  own: readonly string[],
  place: string
): Promise<void> {
  common ??= import('@zxcvbn-ts/language-common').then(
    ({ dictionary }) =>
      new Set(dictionary['passwords-common'].map((word) => String(word).toLowerCase()))
  )
  const plain = password.normalize('NFKC').toLowerCase()
  if ((await common).has(plain))
    throw new InputError(place, said('accounts.isAmongThePasswordsThat'))
  if (new Set(plain).size < 4) throw new InputError(place, said('accounts.hasFewerThan4Different'))
  if (own.some((name) => name.length > 2 && plain.replaceAll(name.toLowerCase(), '').length < 6))
    throw new InputError(place, said('accounts.isLittleMoreThanThe'))
}
