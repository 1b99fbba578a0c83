import type { Catalogue } from './catalogue.ts'

type Area = keyof Catalogue & string
type Named<A extends Area> = `${A}.${keyof Catalogue[A] & string}`

/** What can be set, as a device, the history and the checks tell it apart. */
export type SettingName = Exclude<keyof Catalogue['settings'] & string, 'own'>

/** What can be said: an area and a name of the catalogue. */
export type Code = { [A in Area]: Named<A> }[Area]

/** What a text is made of. Something that is itself said becomes its words first. */
export type Value = string | number | boolean | null | undefined | Said | readonly Value[]

/**
 * Something to be said to people, as a code with its values. It is what core, the server and the database hold and
 * compare; `wordsOf` makes the text where somebody reads it. Plain data, so that it survives JSON.
 */
export interface Said {
  readonly code: Code
  readonly values?: readonly Value[]
}

type Entry<C extends Code> = C extends `${infer A extends Area}.${infer N}`
  ? N extends keyof Catalogue[A]
    ? Catalogue[A][N]
    : never
  : never
type Accepted<P> = P extends string
  ? P | Said
  : P extends readonly (infer Q)[]
    ? readonly Accepted<Q>[]
    : P
type Accepting<P extends readonly unknown[]> = { [I in keyof P]: Accepted<P[I]> }

/** The values that a code takes: what its text in English takes, where for any text something said will do. */
export type Values<C extends Code> =
  Entry<C> extends (...values: infer P) => string ? Accepting<P> : []

export const said = <C extends Code>(code: C, ...values: Values<C>): Said =>
  values.length ? { code, values: values as readonly Value[] } : { code }

/** The same as a text, for the schema library, whose messages are texts; `saidOf` reads it. */
export const coded = <C extends Code>(code: C, ...values: Values<C>): string =>
  JSON.stringify(said(code, ...values))

/**
 * As it is kept in a column of so many characters: JSON, whose long texts are cut before it is cut itself. A text stays
 * one. `saidOf` reads it.
 */
export function saidText(of: Said | string, max: number): string {
  if (typeof of === 'string') return of.slice(0, max)
  for (let long = max; long > 8; long = Math.floor(long / 2)) {
    const text = JSON.stringify(of, (key, value: unknown) =>
      key !== 'code' && typeof value === 'string' ? value.slice(0, long) : value
    )
    if (text.length <= max) return text
  }
  return JSON.stringify({ code: of.code })
}

/** What a text of `coded` or `saidText` says; a text of another origin stays as it is. */
export function saidOf(text: string): Said | string {
  if (!text.startsWith('{"code":')) return text
  try {
    return JSON.parse(text) as Said
  } catch {
    return text
  }
}

/** For logs, which are read without the catalogue: the code with its values. */
export const codeText = (of: Said | string): string =>
  typeof of === 'string' ? of : of.values ? `${of.code} ${JSON.stringify(of.values)}` : of.code
