import { said } from '../../core/messages/said.ts'
import type { FastifySchemaCompiler } from 'fastify'
import type * as v from 'valibot'
import { InputError } from '../../core/errors.ts'
import { parseWith } from '../../core/schema/parse.ts'

/**
 * The one reader of what is asked: parameters, query and body by the schemas that stand at the routes. Places in a body
 * begin with `$`; a parameter is named as it stands in the address.
 */
export const validatorCompiler: FastifySchemaCompiler<v.GenericSchema> =
  ({ schema, httpPart }) =>
  (data: unknown) => {
    try {
      if (httpPart === 'querystring') refuseTwice(data)
      return { value: parseWith(schema, data) }
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      return {
        error:
          httpPart === 'body'
            ? error
            : new InputError(error.place.replace(/^\$\.?/, ''), error.said)
      }
    }
  }

function refuseTwice(query: unknown): void {
  for (const [name, value] of Object.entries(query ?? {}))
    if (Array.isArray(value))
      throw new InputError(`$.${name.slice(0, 40)}`, said('api.isGivenTwiceGiveIt'))
}

/**
 * Texts of ECMAScript may hold half a character; no column, file or XML can. Of ES2024, which the
 * types do not know yet.
 */
const isWellFormed = (text: string): boolean =>
  (text as unknown as { isWellFormed(): boolean }).isWellFormed()

/**
 * Refuses texts with half a character (a lone surrogate) anywhere in what was sent: they would be stored as something
 * else, and two that differ would become the same.
 *
 * @throws InputError that names the place
 */
export function refuseIllFormed(value: unknown, place: string): void {
  // Not by calling itself: what was sent decides how deep it is.
  const left: { value: unknown; place: string }[] = [{ value, place }]
  for (let next = left.pop(); next; next = left.pop()) {
    const { value: here, place: at } = next
    if (typeof here === 'string') {
      if (!isWellFormed(here)) throw new InputError(at, said('api.hasHalfACharacterA'))
    } else if (typeof here === 'object' && here !== null && !ArrayBuffer.isView(here)) {
      for (const [key, inner] of Object.entries(here)) {
        if (!isWellFormed(key)) throw new InputError(at, said('api.hasANameWithHalf'))
        left.push({
          value: inner,
          place: Array.isArray(here) ? `${at}[${key}]` : `${at}.${key.slice(0, 40)}`
        })
      }
    }
  }
}
