import type { FastifyError, FastifyReply, FastifyRequest } from 'fastify'
import { ApiError, type ErrorView } from '../core/apiError.ts'
import { InputError } from '../core/errors.ts'

// All errors that the server answers with are made here.

export const notFound = (what: string): ApiError => new ApiError(404, { code: 'not-found', message: `${what} is not there (any more)` })
export const busy = (message: string): ApiError => new ApiError(409, { code: 'busy', message })
export const notSignedIn = (message: string): ApiError => new ApiError(401, { code: 'not-signed-in', message })
export const notAllowed = (message: string): ApiError => new ApiError(403, { code: 'not-allowed', message })
export const tooMany = (message: string): ApiError => new ApiError(429, { code: 'too-many', message })
export const tooLarge = (message: string): ApiError => new ApiError(413, { code: 'too-large', message })
/** Somebody saved a newer version; `current` is what is kept now, so that nothing is lost. */
export const conflict = (what: string, current: unknown): ApiError =>
  new ApiError(409, { code: 'conflict', message: `${what} was changed in another window since it was read here`, current })

export function answerError(error: FastifyError | Error, request: FastifyRequest, reply: FastifyReply): void {
  const view = ((): { status: number; view: ErrorView } => {
    if (error instanceof ApiError) return error
    if (error instanceof InputError) return { status: 422, view: { code: 'bad-input', message: error.message } }
    const status = (error as FastifyError).statusCode
    if (status === 413) return tooLarge('the request is too large')
    if (status && status < 500) return { status, view: { code: 'bad-input', message: error.message } }
    request.log.error(error)
    return { status: 500, view: { code: 'internal', message: 'something went wrong on the server; its log says more' } }
  })()
  reply.status(view.status).send(view.view)
}
