import { server as msg } from '../../core/messages/en/codes/server.ts'
import { Failure } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'

const KEY_BYTES = 32
const NONCE_BYTES = 12
const TAG_BYTES = 16

/** The key is gone, or is another one than that with which something was sealed. */
export class LostKey extends Failure {}

/**
 * Seals what is secret, such as passwords of devices: AES-256-GCM with a key that lies beside the data, readable by its
 * owner alone.
 */
export class Encryption {
  private readonly key: Buffer
  /** For keyed digests: made of the key, and useless for opening what is sealed (HKDF, RFC 5869). */
  readonly secret: Buffer

  private constructor(key: Buffer) {
    this.key = key
    this.secret = Buffer.from(hkdfSync('sha256', key, '', 'wardoptic passwords', KEY_BYTES))
  }

  /**
   * @param file where the key is, or is made
   * @param needs what a key that is not there takes with it; null: nothing was sealed yet, so a missing key is made
   * @throws LostKey when something was sealed with a key that is not there
   */
  static withKey(file: string, needs: string | null): Encryption {
    if (!existsSync(file)) {
      if (needs !== null) throw new LostKey(msg.keyIsMissing(file, needs))
      writeFileSync(file, randomBytes(KEY_BYTES), { mode: 0o600, flag: 'wx' })
    }
    const key = readFileSync(file)
    if (key.length !== KEY_BYTES) throw new LostKey(msg.keyIsDamaged(file, key.length, KEY_BYTES))
    return new Encryption(key)
  }

  encrypt(text: string): Buffer {
    const nonce = randomBytes(NONCE_BYTES)
    const cipher = createCipheriv('aes-256-gcm', this.key, nonce)
    const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()])
    return Buffer.concat([nonce, cipher.getAuthTag(), sealed])
  }

  /** @throws LostKey for what this key has not sealed */
  decrypt(sealed: Buffer): string {
    try {
      const decipher = createDecipheriv('aes-256-gcm', this.key, sealed.subarray(0, NONCE_BYTES))
      decipher.setAuthTag(sealed.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES))
      return Buffer.concat([
        decipher.update(sealed.subarray(NONCE_BYTES + TAG_BYTES)),
        decipher.final()
      ]).toString('utf8')
    } catch (cause) {
      throw new LostKey(said('devices.sealedWithOtherKey'), cause)
    }
  }
}
