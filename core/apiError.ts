// Apart from core/api.ts, whose schemas the browser has no need of.
import { Failure } from './errors.ts'
import type { Said } from './messages/said.ts'

/** The body of every error answer. */
export interface ErrorView {
  code:
    | 'bad-input'
    | 'not-found'
    | 'conflict'
    | 'too-large'
    | 'too-many'
    | 'busy'
    | 'not-signed-in'
    | 'not-allowed'
    | 'unavailable'
    | 'no-space'
    | 'internal'
  /** What happened. */
  said: Said | string
  /** Where, of input that is wrong: a JSON path, a parameter of the address. */
  path?: string
  /** Of a conflict: what is kept now. */
  current?: unknown
}

/** An answer that is not what was asked for: made by the server, understood by the browser. */
export class ApiError extends Failure {
  /** The HTTP status; 0: the server could not be reached. */
  readonly status: number
  readonly view: ErrorView

  constructor(status: number, view: ErrorView, cause?: unknown) {
    super(view.said, cause, view.path)
    this.status = status
    this.view = view
  }
}

/** Whether asking again may help: what the server refuses, it refuses again. */
export const mayPass = (error: unknown): boolean =>
  !(error instanceof ApiError) || error.status === 0 || error.status >= 500
