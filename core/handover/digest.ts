import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import { canonical } from '../history/states.ts'
import type { SiteRecord } from './record.ts'

/** Source: FIPS 180-4, SHA-256. */
export const digestOf = (bytes: Uint8Array): string => bytesToHex(sha256(bytes))

/** A record as it is kept and digested: JSON with the keys in order and nothing between, in UTF-8. */
export const bytesOf = (record: SiteRecord): Uint8Array => utf8ToBytes(canonical(record))

/** Names exactly this record; it is printed on every page, and `sha256sum record.json` says the same. */
export const digestOfRecord = (record: SiteRecord): string => digestOf(bytesOf(record))

/** As people read it out and compare it: groups of eight. */
export const digestGroups = (digest: string): string[] => digest.match(/.{8}/g) ?? []
