/**
 * What of a text in the pseudo-language stands outside ⟦…⟧ and has letters: it was not made in core/messages.
 *
 * @param names that people gave, or that are no words
 */
export function unmarked(text: string, names: readonly string[] = []): string[] {
  let outside = text
  for (let before = ''; before !== outside;) {
    before = outside
    outside = outside.replace(/⟦[^⟦⟧]*⟧/g, '\n')
  }
  for (const name of [...names].sort((a, b) => b.length - a.length))
    outside = outside.replaceAll(name, ' ')
  return outside
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => /\p{L}/u.test(line))
}
