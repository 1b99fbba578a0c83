/** What is found by what somebody types: names that have all the words, the best first. */

/** Letters without their marks, in small letters: `Łódź` is found by `lodz`. */
const plain = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[łøđß]/g, (letter) => PLAIN[letter]!)
const PLAIN: Readonly<Record<string, string>> = { ł: 'l', ø: 'o', đ: 'd', ß: 'ss' }

export interface Findable {
  /** What it is called, which weighs most. */
  name: string
  /** What else it may be found by: the camera of a detection, its kind. */
  more?: string
}

/**
 * How well it fits, from 0 (worst that fits); null: a word is not in it. A word at the beginning of the name counts more
 * than at that of another word, more than within one, more than in what is said besides.
 */
function fit({ name, more = '' }: Findable, words: readonly string[]): number | null {
  const [title, besides] = [plain(name), plain(more)]
  let sum = 0
  for (const word of words) {
    const begins = (text: string): boolean =>
      text.split(/[^\p{L}\p{N}]+/u).some((w) => w.startsWith(word))
    if (title.startsWith(word)) sum += 4
    else if (begins(title)) sum += 3
    else if (title.includes(word)) sum += 2
    else if (begins(besides)) sum += 1
    else if (!besides.includes(word)) return null
  }
  // Of two that fit alike the shorter one is meant.
  return sum / words.length - Math.min(0.9, title.length / 1000)
}

/** @returns those that fit, best first and in their own order where they fit alike; all of them for no words */
export function find<T extends Findable>(things: readonly T[], typed: string, most: number): T[] {
  const words = plain(typed).split(/\s+/).filter(Boolean)
  if (!words.length) return things.slice(0, most)
  return things
    .flatMap((thing, i) => {
      const worth = fit(thing, words)
      return worth === null ? [] : [{ thing, worth, i }]
    })
    .sort((a, b) => b.worth - a.worth || a.i - b.i)
    .slice(0, most)
    .map(({ thing }) => thing)
}
