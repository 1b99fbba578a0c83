import * as v from 'valibot'
import { InputError } from '../errors.ts'

const pathText = (path: v.BaseIssue<unknown>['path']): string =>
  (path ?? []).reduce(
    (sum, { key }) => sum + (typeof key === 'number' ? `[${key}]` : `.${String(key)}`),
    '$'
  )

const issueText = (issue: v.BaseIssue<unknown>): string => {
  if (issue.type !== 'strict_object') return issue.message
  if (issue.expected === 'never') return 'is not known here; remove it or correct its name'
  return issue.received === 'undefined' ? 'is missing' : 'must be an object'
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
  throw new InputError(pathText(issue.path), issueText(issue))
}
