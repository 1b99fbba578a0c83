import { readFileSync } from 'node:fs'
import type { OutputEndpoint, Phrase } from '../../core/formats/actions.ts'
import type { Sql } from '../database.ts'
import { readVoice } from './queries.ts'

/**
 * What a speaker says, as a WAVE file: a shipped phrase (`server/voices`), or one that was taken
 * in; null for other outputs.
 */
export const voiceOf = async (
  sql: Sql,
  siteId: string,
  endpoint: OutputEndpoint
): Promise<Buffer | null> => {
  if (endpoint.kind !== 'speaker') return null
  return 'phrase' in endpoint.voice
    ? readPhrase(endpoint.voice.phrase)
    : readVoice(sql, siteId, endpoint.voice.file)
}

/** A phrase that ships, spoken: 8 kHz, µ-law. */
export const readPhrase = (phrase: Phrase): Buffer =>
  readFileSync(new URL(`../voices/${phrase}.wav`, import.meta.url))
