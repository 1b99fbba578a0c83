/**
 * Reads texts of which the same come again and again, each once: the same text gives the same value, and comparing it is
 * comparing one reference. It is frozen, as it is everybody's.
 *
 * @param read throws for what is none; that is not remembered
 * @param characters so many of texts are remembered at most; then all are forgotten
 */
export function remembering(
  read: (text: string) => unknown,
  characters: number
): (text: string) => unknown {
  const known = new Map<string, unknown>()
  let sum = 0
  return (text) => {
    let value = known.get(text)
    if (value === undefined) {
      value = frozen(read(text))
      if (sum + text.length > characters) {
        known.clear()
        sum = 0
      }
      known.set(text, value)
      sum += text.length
    }
    return value
  }
}

function frozen(value: unknown): unknown {
  if (typeof value === 'object' && value !== null) {
    Object.values(value).forEach(frozen)
    Object.freeze(value)
  }
  return value
}
