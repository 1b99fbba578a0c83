import * as v from 'valibot'
import { InputError } from '../errors.ts'
import { said, saidOf, type Said } from '../messages/said.ts'

const pathText = (path: v.BaseIssue<unknown>['path']): string =>
  (path ?? []).reduce(
    (sum, { key }) => sum + (typeof key === 'number' ? `[${key}]` : `.${String(key)}`),
    '$'
  )

const saidOfIssue = (issue: v.BaseIssue<unknown>): Said | string => {
  if (issue.type !== 'strict_object') return saidOf(issue.message)
  if (issue.expected === 'never') return said('input.isNotKnownHere')
  return issue.received === 'undefined' ? said('input.isMissing') : said('input.mustBeAnObject')
}

/**
 * Checks a value against a schema.
 *
 * @throws InputError with the JSON path of the first fault and what would be right
 */
export function parseWith<S extends v.GenericSchema>(schema: S, value: unknown): v.InferOutput<S> {
  const result = v.safeParse(schema, value)
  if (result.success) return result.output
  const issue = result.issues[0]
  throw new InputError(pathText(issue.path), saidOfIssue(issue))
}
