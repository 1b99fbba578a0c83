import { audit, auditDone } from '../messages/en/audit.ts'

const words: Readonly<Record<string, string>> = auditDone

/** Codes that have words. */
export const auditCodes: readonly string[] = Object.keys(words)

/** @param what the code of an entry @param status of the answer */
export function auditWords(what: string, status: number): string {
  const done = words[what] ?? audit.unknown
  if (status < 400 || what === 'wrong-password') return done
  if (status === 403) return audit.notAllowed(done)
  if (status === 429) return audit.tooMany(done)
  return status < 500 ? audit.refused(done) : audit.failed(done)
}
