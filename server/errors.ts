import { said, type Said } from '../core/messages/said.ts'
import type { FastifyError, FastifyReply, FastifyRequest } from 'fastify'
import { ApiError, type ErrorView } from '../core/apiError.ts'
import { InputError } from '../core/errors.ts'

// All errors that the server answers with are made here.

/** @param what what there is none of: something said, or a name that somebody gave */
export const notFound = (what: Said | string): ApiError =>
  new ApiError(404, { code: 'not-found', said: said('server.isNotThere', what) })
export const conflict = (why: Said | string): ApiError =>
  new ApiError(409, { code: 'busy', said: why })
export const notSignedIn = (why: Said): ApiError =>
  new ApiError(401, { code: 'not-signed-in', said: why })
export const notAllowed = (why: Said): ApiError =>
  new ApiError(403, { code: 'not-allowed', said: why })
export const tooMany = (why: Said): ApiError => new ApiError(429, { code: 'too-many', said: why })
export const tooLarge = (why: Said): ApiError => new ApiError(413, { code: 'too-large', said: why })
/** Something that this server needs is unavailable for now. */
export const unavailable = (why: Said, cause?: unknown): ApiError =>
  new ApiError(503, { code: 'unavailable', said: why }, cause)
/** A disk is full, or cannot be written. */
export const noSpace = (why: Said, cause?: unknown): ApiError =>
  new ApiError(507, { code: 'no-space', said: why }, cause)
/** Somebody saved a newer version; `current` is what is kept now, so that nothing is lost. */
export const versionConflict = (what: Said | string, current: unknown): ApiError =>
  new ApiError(409, {
    code: 'conflict',
    said: said('server.wasChangedMeanwhile', what),
    current
  })

const DISK: Readonly<Record<string, Said>> = {
  ENOSPC: said('server.diskFull'),
  EDQUOT: said('server.diskQuota'),
  EROFS: said('server.diskReadOnly'),
  EACCES: said('server.diskDenied')
}

/** What an error of a file says; null: it is none of the disk. */
export function diskError(error: unknown): ApiError | null {
  const why = DISK[(error as NodeJS.ErrnoException | null)?.code ?? '']
  return why === undefined ? null : noSpace(why, error)
}

/** What an error is answered with. Anything unknown is an error of the server itself. */
export function viewOfError(error: unknown): { status: number; view: ErrorView; unknown?: true } {
  if (error instanceof ApiError) return error
  if (error instanceof InputError)
    return {
      status: 422,
      view: { code: 'bad-input', said: error.said, ...(error.place && { path: error.place }) }
    }
  const disk = diskError(error)
  if (disk) return disk
  const status = (error as FastifyError).statusCode
  if (status === 413) return tooLarge(said('server.theRequestIsTooLarge'))
  if (status && status < 500)
    return { status, view: { code: 'bad-input', said: (error as Error).message } }
  return {
    status: 500,
    view: { code: 'internal', said: said('server.internal') },
    unknown: true
  }
}

export function answerError(
  error: FastifyError | Error,
  request: FastifyRequest,
  reply: FastifyReply
): void {
  const { status, view, unknown } = viewOfError(error)
  if (unknown) request.log.error(error)
  if (status === 503) reply.header('retry-after', '2')
  reply.status(status).send(view)
}
