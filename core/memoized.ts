/**
 * Memoizes the reading of texts, for those that come again and again. The same text gives the same value, so that two are
 * compared by reference. It is frozen, as it is shared.
 *
 * @param read errors that it throws are not cached
 * @param maxCharacters of the texts in the cache, which is emptied when it is full
 */
export function memoized(
  read: (text: string) => unknown,
  maxCharacters: number
): (text: string) => unknown {
  const known = new Map<string, unknown>()
  let sum = 0
  return (text) => {
    let value = known.get(text)
    if (value === undefined) {
      value = frozen(read(text))
      if (sum + text.length > maxCharacters) {
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
