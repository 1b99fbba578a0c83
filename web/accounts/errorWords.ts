/** What was wrong with a form: the field in its own words, then what is wrong with it. */
export function wordsOf(problem: unknown, names: Readonly<Record<string, string>>): string {
  const { message } = problem as Error
  const [, field, rest] = /^\$\.(?:\w+\.)*(\w+): (.*)$/s.exec(message) ?? []
  return field && names[field] ? `${names[field]} ${rest}.` : message
}
