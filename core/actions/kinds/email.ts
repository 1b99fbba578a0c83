import * as v from 'valibot'
import { id } from '../../schema/parts.ts'
import { address, common, pictures } from './parts.ts'

export const EmailSchema = v.strictObject({
  ...common,
  kind: v.literal('email'),
  /** Addresses; people and groups of the site may stand beside them (`people`). */
  recipients: v.pipe(
    v.array(address, 'must be a list of e-mail addresses'),
    v.maxLength(20, 'has more than 20 addresses'),
    v.check((list) => new Set(list).size === list.length, 'names an address twice')
  ),
  people: v.optional(v.array(id, 'must be a list of people and groups'), []),
  ...pictures
})
