import { coded } from '../../messages/said.ts'
import * as v from 'valibot'
import { id, oneOf } from '../../schema/parts.ts'
import { ofDevice, whole } from './parts.ts'

/** Phrases that ship with the application (`server/voices`); what each says is in `core/messages/en/actions/kinds.ts`. */
export const PHRASES = ['recorded', 'leave', 'called', 'water', 'closed'] as const
export type Phrase = (typeof PHRASES)[number]

/** Ranges: docs/references.md, facts of the trade (common practice, no source). */
export const SpeakerSchema = v.strictObject({
  ...ofDevice,
  kind: v.literal('speaker'),
  /** A shipped phrase, or a file that was taken in (core/formats/wave.ts). */
  voice: v.union(
    [
      v.strictObject({
        phrase: oneOf(PHRASES)
      }),
      v.strictObject({ file: id })
    ],
    coded('actions.mustBePhrase')
  ),
  repeats: whole(1, 50),
  /** Percent of the loudest that the device can. */
  volume: whole(1, 100, '%')
})

/** What it does when it runs, as a device's items (docs/device-extension.md). */
export const speakerSettings = ({
  voice,
  repeats,
  volume
}: v.InferOutput<typeof SpeakerSchema>): Record<string, string> => ({
  Voice: 'phrase' in voice ? `phrase:${voice.phrase}` : `file:${voice.file}`,
  Repeats: String(repeats),
  Volume: String(volume)
})
