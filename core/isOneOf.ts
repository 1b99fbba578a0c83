/** Whether a text is one of a list of words. */
export const isOneOf = <T extends string>(list: readonly T[], text: string): text is T =>
  (list as readonly string[]).includes(text)
