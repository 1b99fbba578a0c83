import { ApiError, type ErrorView } from '../../core/apiError.ts'
import { errorWords } from '../../core/messages/errorWords.ts'

/** The body of an answer; of a refusal with `message`, what people read of it: the place and the words. */
export function inWords(body: any): any {
  if (!body?.said || !body.code) return body
  return { ...body, message: errorWords(new ApiError(0, body as ErrorView)) }
}
