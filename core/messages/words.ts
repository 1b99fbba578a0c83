import { catalogue } from './catalogue.ts'
import type { Said, Value } from './said.ts'

type Message = string | ((...values: readonly unknown[]) => string)

const spoken = (value: Value): unknown =>
  Array.isArray(value)
    ? (value as readonly Value[]).map(spoken)
    : typeof value === 'object' && value !== null
      ? wordsOf(value as Said)
      : value

/**
 * The words of what is said. A text stays as it is: what was kept before there were codes is read as it was written. A
 * code of a newer version, which has no words here, is shown as it is.
 */
export function wordsOf(said: Said | string): string {
  if (typeof said === 'string') return said
  const [area, name] = said.code.split('.') as [string, string]
  const message = (
    catalogue as unknown as Partial<Record<string, Partial<Record<string, Message>>>>
  )[area]?.[name]
  if (message === undefined) return said.code
  return typeof message === 'string' ? message : message(...(said.values ?? []).map(spoken))
}
