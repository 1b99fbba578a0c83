import { problemWords } from '../../core/messages/errorWords.ts'
import { InputError } from '../../core/errors.ts'

/** Does something with what was typed; what is wrong with it, without the path, or null when nothing is. */
export function refusalOf(work: () => void): string | null {
  try {
    work()
    return null
  } catch (problem) {
    if (problem instanceof InputError) return problemWords(problem)
    throw problem
  }
}
