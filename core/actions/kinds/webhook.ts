import { noLongerThan } from '../../schema/parts.ts'
import { coded } from '../../messages/said.ts'
import * as v from 'valibot'
import { common } from './parts.ts'

export const WebhookSchema = v.strictObject({
  ...common,
  kind: v.literal('webhook'),
  url: v.pipe(
    v.string(coded('actions.mustBeAnAddress')),
    noLongerThan(500),
    v.check(
      (text) => URL.canParse(text) && /^https?:$/.test(new URL(text).protocol),
      coded('actions.mustBeAnAddressSuch')
    )
  )
})
