import { oneOf } from '../../schema/parts.ts'
import * as v from 'valibot'
import { ofDevice, whole } from './parts.ts'

export const RELAY_MODES = ['pulse', 'follow', 'untilAcknowledged'] as const

/** Ranges: docs/references.md, facts of the trade (common practice, no source). */
export const RelaySchema = v.strictObject({
  ...ofDevice,
  kind: v.literal('relay'),
  /**
   * Pulse: closed for the seconds. Follow: until the seconds have passed since the last trigger. Or
   * closed until the alarm is acknowledged.
   */
  mode: oneOf(RELAY_MODES),
  seconds: whole(1, 600, ' s')
})

/** What it does when it runs, as a device's items (docs/device-extension.md). */
export const relaySettings = ({
  mode,
  seconds
}: v.InferOutput<typeof RelaySchema>): Record<string, string> => ({
  Mode: mode,
  Time: `PT${seconds}S`
})
