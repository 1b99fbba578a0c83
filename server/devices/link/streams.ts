/**
 * The parts of an answer as they come, until it ends or is told to.
 *
 * A stream is not left to the signal that it was asked for with: what follows a signal inside of `fetch`, and what
 * `AbortSignal.any` makes, is held weakly, and once it has been collected nothing ends the stream any more.
 */
export async function* partsOf(answer: Response, signal: AbortSignal): AsyncGenerator<Uint8Array> {
  const reader = answer.body?.getReader()
  if (!reader) return
  const stop = (): void => void reader.cancel().catch(() => {})
  signal.addEventListener('abort', stop)
  try {
    while (!signal.aborted) {
      const { done, value } = await reader.read()
      if (done) return
      yield value
    }
  } finally {
    signal.removeEventListener('abort', stop)
    stop()
  }
}
