import { utf8ToBytes } from '@noble/hashes/utils.js'
import * as v from 'valibot'
import { canonical } from '../history/states.ts'
import { coded, said, type Said } from '../messages/said.ts'
import { saidOfError } from '../errors.ts'
import { parseWith } from '../schema/parse.ts'
import { oneOf } from '../schema/parts.ts'
import { digestOf, digestOfRecord } from './digest.ts'
import { DigestSchema, RecordSchema, SignaturesSchema, type SiteRecord } from './record.ts'

/** What is in a record's ZIP file, each file with its digest, so that whoever has it can check it. */

export const MANIFEST = 'manifest.json'
export const RECORD = 'record.json'
export const SIGNATURES = 'signatures.json'

const FileSchema = v.strictObject({
  file: v.string(coded('input.mustBeAText')),
  bytes: v.number(coded('input.mustBeANumber')),
  sha256: DigestSchema
})
const ManifestSchema = v.strictObject({
  format: oneOf(['wardoptic-manifest/1']),
  number: v.number(coded('input.mustBeANumber')),
  /** Of the record: what is printed on its pages and what signatures name. */
  digest: DigestSchema,
  /** In order of their names. */
  files: v.array(FileSchema, coded('sites.mustBeAList')),
  /** Of all the rest of the manifest, as canonical JSON. */
  seal: DigestSchema
})
type Manifest = v.InferOutput<typeof ManifestSchema>

/** The seal itself is left out of what it is of. */
const sealOf = (manifest: Manifest): string =>
  digestOf(utf8ToBytes(canonical({ ...manifest, seal: undefined })))

/** @param files all but the manifest, by their paths */
export function manifestOf(record: SiteRecord, files: ReadonlyMap<string, Uint8Array>): Uint8Array {
  const manifest: Manifest = {
    format: 'wardoptic-manifest/1',
    number: record.number,
    digest: digestOfRecord(record),
    files: [...files]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([file, bytes]) => ({ file, bytes: bytes.length, sha256: digestOf(bytes) })),
    seal: ''
  }
  return utf8ToBytes(canonical({ ...manifest, seal: sealOf(manifest) }))
}

const json = (bytes: Uint8Array): unknown =>
  JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes))

/** The files beside a record that it names itself. */
const namedBy = (record: SiteRecord): { file: string; sha256: string }[] =>
  [
    ...record.cameras.flatMap((c) => [c.picture, c.night]),
    ...record.checks.flatMap((c) => [c.picture, c.tracks])
  ].filter((named) => named !== null)

/** What of a record does not hold; `wrong` is empty when everything does. */
export interface Verified {
  number: number | null
  digest: string | null
  files: number
  wrong: (Said | string)[]
}

/**
 * Checks a record: every file against the manifest, the manifest against itself, the record against its schema and its
 * digest, its pictures and its signatures against that. It finds what was changed since; who made it, only the digest on
 * a signed page tells.
 */
export function verify(files: ReadonlyMap<string, Uint8Array>): Verified {
  const wrong: (Said | string)[] = []
  const found: Verified = { number: null, digest: null, files: files.size, wrong }
  const written = files.get(MANIFEST)
  if (!written) {
    wrong.push(said('handover.fileMissing', MANIFEST))
    return found
  }
  let manifest: Manifest
  try {
    manifest = parseWith(ManifestSchema, json(written))
  } catch (error) {
    wrong.push(said('handover.manifestUnreadable', saidOfError(error)))
    return found
  }
  Object.assign(found, { number: manifest.number, digest: manifest.digest })
  // Also a blank between two fields is a change.
  if (
    sealOf(manifest) !== manifest.seal ||
    digestOf(utf8ToBytes(canonical(manifest))) !== digestOf(written)
  )
    wrong.push(said('handover.manifestChanged'))
  for (const { file, sha256 } of manifest.files) {
    const bytes = files.get(file)
    if (!bytes) wrong.push(said('handover.fileMissing', file))
    else if (digestOf(bytes) !== sha256) wrong.push(said('handover.fileChanged', file))
  }
  for (const file of files.keys())
    if (file !== MANIFEST && !manifest.files.some((f) => f.file === file))
      wrong.push(said('handover.fileUnknown', file))
  checkRecord(files, manifest, wrong)
  return found
}

function checkRecord(
  files: ReadonlyMap<string, Uint8Array>,
  { digest, files: listed }: Manifest,
  wrong: (Said | string)[]
): void {
  const written = files.get(RECORD)
  if (!written) {
    if (!listed.some(({ file }) => file === RECORD))
      wrong.push(said('handover.fileMissing', RECORD))
    return
  }
  if (digestOf(written) !== digest) wrong.push(said('handover.recordOtherDigest'))
  try {
    const record = parseWith(RecordSchema, json(written))
    for (const { file, sha256 } of namedBy(record)) {
      const named = files.get(file)
      if (!named || digestOf(named) !== sha256) wrong.push(said('handover.pictureChanged', file))
    }
  } catch (error) {
    wrong.push(said('handover.recordUnreadable', saidOfError(error)))
  }
  const signed = files.get(SIGNATURES)
  if (!signed) return
  try {
    for (const signature of parseWith(SignaturesSchema, json(signed)))
      if (signature.digest !== digest)
        wrong.push(said('handover.signatureElsewhere', signature.name))
  } catch (error) {
    wrong.push(saidOfError(error))
  }
}
