import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'

const KEY_BYTES = 32
const NONCE_BYTES = 12
const TAG_BYTES = 16

/** Seals passwords of devices: AES-256-GCM with a key that lies beside the data, readable by its owner alone. */
export class Seal {
  private readonly key: Buffer

  /** @param file where the key is, or is made */
  constructor(file: string) {
    if (!existsSync(file)) writeFileSync(file, randomBytes(KEY_BYTES), { mode: 0o600, flag: 'wx' })
    this.key = readFileSync(file)
    if (this.key.length !== KEY_BYTES) throw new Error(`${file} is no key of ${KEY_BYTES} bytes; without it the passwords of the devices cannot be read`)
  }

  close(text: string): Buffer {
    const nonce = randomBytes(NONCE_BYTES)
    const cipher = createCipheriv('aes-256-gcm', this.key, nonce)
    const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()])
    return Buffer.concat([nonce, cipher.getAuthTag(), sealed])
  }

  /** @throws Error when it was sealed with another key, or has been changed */
  open(sealed: Buffer): string {
    const decipher = createDecipheriv('aes-256-gcm', this.key, sealed.subarray(0, NONCE_BYTES))
    decipher.setAuthTag(sealed.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES))
    return Buffer.concat([decipher.update(sealed.subarray(NONCE_BYTES + TAG_BYTES)), decipher.final()]).toString('utf8')
  }
}
