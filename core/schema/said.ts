import * as v from 'valibot'
import { coded, type Said, type Value } from '../messages/said.ts'

const ValueSchema: v.GenericSchema<Value> = v.lazy(() =>
  v.union([
    v.pipe(v.string(), v.maxLength(200)),
    v.pipe(v.number(), v.finite()),
    v.boolean(),
    v.null(),
    SaidSchema,
    v.pipe(v.array(ValueSchema), v.maxLength(50))
  ])
)

/** Something said, as it is kept and sent: a code of any version, with its values. */
export const SaidSchema: v.GenericSchema<Said> = v.strictObject({
  code: v.pipe(
    v.string(coded('input.mustBeAText')),
    v.regex(/^[a-zA-Z]{1,40}\.[a-zA-Z0-9]{1,60}$/, coded('input.mustBeACode'))
  ) as unknown as v.GenericSchema<Said['code']>,
  values: v.optional(v.pipe(v.array(ValueSchema), v.maxLength(20)))
})
