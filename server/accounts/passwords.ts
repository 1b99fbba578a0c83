import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto'

/** Cost of a guess. Source: RFC 7914 for the function; OWASP Password Storage Cheat Sheet for the figures (from memory). */
const COST = { N: 2 ** 15, r: 8, p: 3, maxmem: 64 * 2 ** 20 } satisfies ScryptOptions
const BYTES = 32

const derive = (password: string, salt: Buffer, { N, r, p }: Pick<typeof COST, 'N' | 'r' | 'p'>): Promise<Buffer> =>
  new Promise((resolve, reject) => scrypt(password.normalize('NFKC'), salt, BYTES, { N, r, p, maxmem: COST.maxmem }, (error, key) => (error ? reject(error) : resolve(key))))

/** A password as it is kept: `scrypt$N$r$p$salt$hash`. */
export async function hashed(password: string): Promise<string> {
  const salt = randomBytes(16)
  const key = await derive(password, salt, COST)
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64'), key.toString('base64')].join('$')
}

/** Whether a password is the one that is kept. Takes as long where there is none to compare with. */
export async function isPassword(password: string, kept: string | null): Promise<boolean> {
  const [, n, r, p, salt, hash] = (kept ?? `scrypt$${COST.N}$${COST.r}$${COST.p}$${Buffer.alloc(16).toString('base64')}$${Buffer.alloc(BYTES).toString('base64')}`).split('$')
  const key = await derive(password, Buffer.from(salt, 'base64'), { N: Number(n) as typeof COST.N, r: Number(r) as typeof COST.r, p: Number(p) as typeof COST.p })
  return timingSafeEqual(key, Buffer.from(hash, 'base64')) && kept !== null
}
