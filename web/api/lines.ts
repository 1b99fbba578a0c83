import { errorOf, unreachable } from './client.ts'
import { atSite } from './here.ts'

/**
 * A request that is answered by lines of JSON as they come.
 *
 * @param signal ends it; the server stops what it does for it
 * @throws ApiError, also when the answer breaks off in the middle of a line
 */
export async function requestLines<T>(
  path: string,
  body: unknown,
  onLine: (line: T) => void,
  signal: AbortSignal
): Promise<void> {
  const answer = await fetch(atSite(path), {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
    signal
  }).catch((error: unknown) => {
    if (signal.aborted) throw error
    throw unreachable()
  })
  if (!answer.ok || !answer.body) throw errorOf(answer.status, await answer.text())
  const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (;;) {
    const { done, value } = await reader.read()
    if (done) break
    const lines = (rest + value).split('\n')
    rest = lines.pop()!
    for (const line of lines) onLine(JSON.parse(line) as T)
  }
  if (rest) throw unreachable()
}
