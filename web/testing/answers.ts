import { enterSite } from '../api/here.ts'

/** What was asked of the server, in order. */
export interface Asked {
  method: string
  path: string
  body: any
}

/**
 * In place of the server for a component on its own; the server's own answers are tested with it.
 *
 * @param answer the status and the body for a request
 * @returns what has been asked so far
 */
export function answerWith(answer: (asked: Asked) => { status?: number; body: unknown }): Asked[] {
  enterSite('s')
  const asked: Asked[] = []
  globalThis.fetch = ((path: string, { method = 'GET', body }: RequestInit = {}) => {
    const one = {
      method,
      path: path.replace(/^\/api\/sites\/[^/]*(?=\/)/, ''),
      body: typeof body === 'string' ? JSON.parse(body) : undefined
    }
    asked.push(one)
    const { status = 200, body: said } = answer(one)
    return Promise.resolve(
      new Response(JSON.stringify(said), {
        status,
        headers: { 'content-type': 'application/json' }
      })
    )
  }) as typeof fetch
  return asked
}
