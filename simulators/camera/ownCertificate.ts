/** A certificate that nobody has signed but its owner, as cameras make theirs; another one each time. */
export async function ownCertificate(): Promise<{ key: string; cert: string }> {
  const { generate } = await import('selfsigned')
  const { private: key, cert } = await generate([{ name: 'commonName', value: 'camera' }], {
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256'
  })
  return { key, cert }
}
