import { coded } from '../../messages/said.ts'
import * as v from 'valibot'
import { id } from '../../schema/parts.ts'
import { address, common, pictures } from './parts.ts'

export const EmailSchema = v.strictObject({
  ...common,
  kind: v.literal('email'),
  /** Addresses; people and groups of the site may stand beside them (`people`). */
  recipients: v.pipe(
    v.array(address, coded('actions.mustBeAListOf')),
    v.maxLength(20, coded('actions.hasMoreThan20Addresses')),
    v.check((list) => new Set(list).size === list.length, coded('actions.namesAnAddressTwice'))
  ),
  people: v.optional(v.array(id, coded('input.mustBeAListOf9')), []),
  ...pictures
})
