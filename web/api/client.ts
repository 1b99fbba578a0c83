import { common } from '../../core/messages/en/common.ts'
import { said } from '../../core/messages/said.ts'
import { ApiError, type ErrorView } from '../../core/apiError.ts'
import { atSite } from './here.ts'
import { setServerState } from './serverState.ts'

/** Dispatched on the window when the session has ended. */
export const SIGNED_OUT = 'wardoptic-signed-out'

export const unreachable = (): ApiError =>
  new ApiError(0, {
    code: 'internal',
    said: said('server.cannotBeReached')
  })

/** The error of an answer's body, whatever the body is. */
export function errorOf(status: number, body: string): ApiError {
  if (status === 401) window.dispatchEvent(new Event(SIGNED_OUT))
  try {
    const view = JSON.parse(body) as ErrorView
    if (view.code === 'unavailable') setServerState(common.theDatabaseDoesNot)
    return new ApiError(status, view)
  } catch {
    return new ApiError(status, { code: 'internal', said: said('server.answeredWith', status) })
  }
}

/** A path of the site that is shown, but one that begins with `/api/` as it is. */
export const addressOf = (path: string): string => (path.startsWith('/api/') ? path : atSite(path))

/** One request to the server, `/alarms` of the site that is shown, `/api/accounts` of none. @throws ApiError */
export async function request<T>(
  method: 'GET' | 'PUT' | 'POST' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
  {
    keepalive = false,
    headers = {},
    signal
  }: { keepalive?: boolean; headers?: Record<string, string>; signal?: AbortSignal } = {}
): Promise<T> {
  return ask<T>(path, {
    method,
    keepalive,
    ...(signal && { signal }),
    headers: { ...headers, ...(body !== undefined && { 'content-type': 'application/json' }) },
    ...(body !== undefined && { body: JSON.stringify(body) })
  })
}

/** Sends a file as it is. @param type its media type @throws ApiError */
export const sendFile = <T>(path: string, file: File, type: string): Promise<T> =>
  ask<T>(path, { method: 'POST', headers: { 'content-type': type }, body: file })

async function ask<T>(path: string, init: RequestInit): Promise<T> {
  let answer: Response
  try {
    answer = await fetch(addressOf(path), init)
  } catch (error) {
    // Whoever has left wants no answer.
    if (init.signal?.aborted) throw error
    throw unreachable()
  }
  const text = await answer.text()
  if (answer.ok) setServerState(null)
  if (!answer.ok) throw errorOf(answer.status, text)
  return (answer.headers.get('content-type')?.includes('json') ? JSON.parse(text) : text) as T
}

/** A file from the server. @throws ApiError */
export async function requestBytes(path: string): Promise<Uint8Array> {
  let answer: Response
  try {
    answer = await fetch(addressOf(path))
  } catch {
    throw unreachable()
  }
  if (!answer.ok) throw errorOf(answer.status, await answer.text())
  return new Uint8Array(await answer.arrayBuffer())
}
