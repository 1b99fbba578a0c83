/** An id that no other window can have made: a word and 8 random bytes. */
export const newId = (word: string): string =>
  `${word}-${[...crypto.getRandomValues(new Uint8Array(8))].map((b) => b.toString(16).padStart(2, '0')).join('')}`
