import type { FastifyError, FastifyReply, FastifyRequest } from 'fastify'
import { ApiError, type ErrorView } from '../core/apiError.ts'
import { InputError } from '../core/errors.ts'

// All errors that the server answers with are made here.

export const notFound = (what: string): ApiError =>
  new ApiError(404, { code: 'not-found', message: `${what} is not there (any more)` })
export const conflict = (message: string): ApiError => new ApiError(409, { code: 'busy', message })
export const notSignedIn = (message: string): ApiError =>
  new ApiError(401, { code: 'not-signed-in', message })
export const notAllowed = (message: string): ApiError =>
  new ApiError(403, { code: 'not-allowed', message })
export const tooMany = (message: string): ApiError =>
  new ApiError(429, { code: 'too-many', message })
export const tooLarge = (message: string): ApiError =>
  new ApiError(413, { code: 'too-large', message })
/** Something that this server needs is away; it will be back. */
export const unavailable = (message: string, cause?: unknown): ApiError =>
  Object.assign(new ApiError(503, { code: 'unavailable', message }), { cause })
/** A disk is full, or cannot be written. */
export const noSpace = (message: string, cause?: unknown): ApiError =>
  Object.assign(new ApiError(507, { code: 'no-space', message }), { cause })
/** Somebody saved a newer version; `current` is what is kept now, so that nothing is lost. */
export const versionConflict = (what: string, current: unknown): ApiError =>
  new ApiError(409, {
    code: 'conflict',
    message: `${what} was changed in another window since it was read here`,
    current
  })

const DISK: Readonly<Record<string, string>> = {
  ENOSPC: 'The disk is full. Free some space; nothing that was saved before is lost.',
  EDQUOT: 'The disk quota is used up. Free some space; nothing that was saved before is lost.',
  EROFS: 'The data folder cannot be written: its disk is read-only.',
  EACCES: 'The data folder cannot be written: permission denied.'
}

/** What an error of a file says in words; null: it is none of the disk. */
export function diskError(error: unknown): ApiError | null {
  const words = DISK[(error as NodeJS.ErrnoException | null)?.code ?? '']
  return words === undefined ? null : noSpace(words, error)
}

/** What an error is answered with. Whatever is not known is the server's own fault. */
export function viewOfError(error: unknown): { status: number; view: ErrorView; unknown?: true } {
  if (error instanceof ApiError) return error
  if (error instanceof InputError)
    return { status: 422, view: { code: 'bad-input', message: error.message } }
  const disk = diskError(error)
  if (disk) return disk
  const status = (error as FastifyError).statusCode
  if (status === 413) return tooLarge('the request is too large')
  if (status && status < 500)
    return { status, view: { code: 'bad-input', message: (error as Error).message } }
  return {
    status: 500,
    view: { code: 'internal', message: 'something went wrong on the server; its log says more' },
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
