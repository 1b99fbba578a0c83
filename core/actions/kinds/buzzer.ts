import * as v from 'valibot'
import { whole, ofDevice } from './parts.ts'

export const BuzzerSchema = v.strictObject({
  ...ofDevice,
  kind: v.literal('buzzer'),
  seconds: whole(1, 60, ' s')
})

/** What it does when it runs, as a device's items (docs/device-extension.md). */
export const buzzerSettings = ({
  seconds
}: v.InferOutput<typeof BuzzerSchema>): Record<string, string> => ({
  Time: `PT${seconds}S`
})
