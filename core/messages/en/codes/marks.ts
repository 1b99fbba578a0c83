import { count } from '../../format.ts'
import { messages } from '../../messages.ts'

/** What is wanted, and what is a nuisance. */
export const marks = messages({
  noSuchFile: (file: number, files: number) =>
    `is ${file}, but there ${files === 1 ? 'is' : 'are'} ${count(files, 'file')}; the first one is 0`
})
