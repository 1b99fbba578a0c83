import { wordsOf } from '../../core/messages/words.ts'
import type { Said } from '../../core/messages/said.ts'

/** The body of an answer; of a refusal with `message`, what people read of it: the place and the words. */
export function inWords(body: any): any {
  if (!body?.said || !body.code) return body
  const { path, said } = body as { path?: string; said: Said | string }
  return { ...body, message: `${path ? `${path}: ` : ''}${wordsOf(said)}` }
}
