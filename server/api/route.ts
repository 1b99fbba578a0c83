import { noLongerThan } from '../../core/schema/parts.ts'
import { coded, type Said } from '../../core/messages/said.ts'
import type { IncomingMessage, ServerResponse } from 'node:http'
import type {
  FastifyBaseLogger,
  FastifyInstance,
  FastifyTypeProvider,
  RawServerDefault
} from 'fastify'
import * as v from 'valibot'
import { ROLES, type Role } from '../../core/accounts/accounts.ts'

/** What a route is declared with, and the types that its handler is given because of it. */

/** A Valibot schema is the type: handlers get what it has read, not what was sent. */
interface ValibotTypes extends FastifyTypeProvider {
  validator: this['schema'] extends v.GenericSchema ? v.InferOutput<this['schema']> : unknown
}

/** The part of the server under `/api`. */
export type Api = FastifyInstance<
  RawServerDefault,
  IncomingMessage,
  ServerResponse,
  FastifyBaseLogger,
  ValibotTypes
>

/** Who may ask: roles; a phone that was let in for one walk test; or everybody, signed in or not. */
export type Who = readonly Role[] | 'phone' | 'anyone'

export const SIGNED_IN: Who = ROLES
export const ACTING: Who = ['installer', 'operator']
export const INSTALLER: Who = ['installer']
export const PHONE: Who = 'phone'
export const ANYONE: Who = 'anyone'

declare module 'fastify' {
  interface FastifyContextConfig {
    roles?: Who
    /** Left out of the audit log, though it changes something: too frequent and of no consequence. */
    unaudited?: true
  }
}

interface RouteSchema {
  params?: v.GenericSchema
  querystring?: v.GenericSchema
  body?: v.GenericSchema
}

/** The options of a route: who may ask for it, and what may be asked. */
export const allow = <const S extends RouteSchema>(
  roles: Who,
  schema: S = {} as S
): { config: { roles: Who }; schema: S } => ({ config: { roles }, schema })

/** The same for what could be guessed: so often a minute from one network address. */
export const slowly = <T extends { config: object }>(options: T): T => ({
  ...options,
  config: { ...options.config, rateLimit: { max: 30, timeWindow: 60_000 } }
})

const text = v.string(coded('input.mustBeAText'))
/** An id as an address names it. The database passes over spaces at its end: they would be taken for nothing. */
const idText = v.pipe(
  text,
  noLongerThan(120),
  v.regex(/^(?:|.*\S)$/su, coded('api.endsWithASpaceLeave'))
)
/** A number as an address names it. @param of what it is of */
export const numberText = (of: Said) =>
  v.pipe(text, v.regex(/^\d{1,15}$/, coded('api.mustBeTheNumberOf', of)), v.transform(Number))

export const byCamera = v.object({ camera: idText })
export const byCameraAndId = v.object({ camera: idText, id: idText })
/** A device's own name for a part of it. */
export const tokenText = v.pipe(text, noLongerThan(120))

export const byId = v.object({ id: idText })
export const byNumber = (of: Said) => v.object({ id: numberText(of) })

const versionWords = coded('api.mustBeTheVersionThat')
/** The version that a deletion names in its address. */
export const versionQuery = v.object({
  version: v.pipe(
    v.optional(text, ''),
    v.regex(/^[1-9]\d{0,9}$/, versionWords),
    v.transform(Number)
  )
})

/** A body that may be left out. */
export const orNothing = <const S extends v.GenericSchema>(schema: S) =>
  v.nullish(schema, {} as never)

/** A body that is a file, as it was sent. */
export const fileBody = (what: Said) =>
  v.custom<Buffer>((value) => Buffer.isBuffer(value) && value.length > 0, coded('api.mustBe', what))
