import { start as msg } from '../../core/messages/en/codes/start.ts'
import { said } from '../../core/messages/said.ts'
import { X509Certificate } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { networkInterfaces } from 'node:os'
import { join } from 'node:path'
import { UsageError } from '../../core/cli/options.ts'

/** What a server over TLS shows, and what it proves itself with. */
export interface Certificate {
  cert: string
  key: string
  /** SHA-256, as browsers show it. */
  fingerprint: string
  /** Of one's own making: no browser knows who signed it. */
  selfSigned: boolean
}

const YEARS = 5

/**
 * The certificate that is given, or one that is made at the first start and kept.
 *
 * @param folder where one that is made is kept @param names under which the server is asked
 * @throws UsageError for files that are none, or do not belong together
 */
export async function readCertificate(
  files: { cert: string; key: string } | null,
  folder: string,
  names: readonly string[]
): Promise<Certificate> {
  const of = files ?? { cert: join(folder, 'cert.pem'), key: join(folder, 'key.pem') }
  if (!files && !existsSync(of.cert)) await make(of, folder, names)
  const read = (file: string): string => {
    try {
      return readFileSync(file, 'utf8')
    } catch (error) {
      throw new UsageError(
        said('start.cannotBeRead', file, (error as Error).message),
        undefined,
        error
      )
    }
  }
  const [cert, key] = [read(of.cert), read(of.key)]
  try {
    const { createPrivateKey } = await import('node:crypto')
    const certificate = new X509Certificate(cert)
    if (!certificate.checkPrivateKey(createPrivateKey(key)))
      throw new Error('the key is of another certificate')
    if (Date.parse(certificate.validTo) < Date.now())
      process.stderr.write(msg.theCertificateEndedOn(of.cert, certificate.validTo))
    return {
      cert,
      key,
      fingerprint: certificate.fingerprint256,
      selfSigned: certificate.issuer === certificate.subject
    }
  } catch (error) {
    throw new UsageError(
      said('start.andAreNoCertificate', of.cert, of.key, (error as Error).message),
      undefined,
      error
    )
  }
}

async function make(
  of: { cert: string; key: string },
  folder: string,
  names: readonly string[]
): Promise<void> {
  const altNames = names.map((name) =>
    isIP(name.replace(/^\[|\]$/g, ''))
      ? { type: 7 as const, ip: name.replace(/^\[|\]$/g, '') }
      : { type: 2 as const, value: name }
  )
  const { generate } = await import('selfsigned')
  const now = new Date()
  const { cert, private: key } = await generate([{ name: 'commonName', value: names[0] }], {
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256',
    notBeforeDate: now,
    notAfterDate: new Date(now.getFullYear() + YEARS, now.getMonth(), now.getDate()),
    extensions: [
      { name: 'basicConstraints', cA: false },
      { name: 'keyUsage', digitalSignature: true },
      { name: 'extKeyUsage', serverAuth: true },
      { name: 'subjectAltName', altNames }
    ]
  })
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  writeFileSync(of.key, key, { mode: 0o600 })
  writeFileSync(of.cert, cert)
}

/** All addresses of this machine, for a server that listens at every one. */
export const ownAddresses = (): string[] =>
  Object.values(networkInterfaces()).flatMap((list) =>
    (list ?? [])
      .filter(({ address }) => !address.startsWith('fe80'))
      .map(({ address, family }) => (family === 'IPv6' ? `[${address}]` : address))
  )
