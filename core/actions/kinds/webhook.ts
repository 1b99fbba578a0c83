import * as v from 'valibot'
import { common } from './parts.ts'

export const WebhookSchema = v.strictObject({
  ...common,
  kind: v.literal('webhook'),
  url: v.pipe(
    v.string('must be an address'),
    v.maxLength(500, 'is longer than 500 characters'),
    v.check(
      (text) => URL.canParse(text) && /^https?:$/.test(new URL(text).protocol),
      'must be an address such as https://example.org/alarms'
    )
  )
})
