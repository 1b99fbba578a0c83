/** One line of the bench: what was measured, and what is promised. */
export const say = (what: string, measured: string, promised = ''): void =>
  console.log(`${what.padEnd(58)} ${measured.padEnd(26)} ${promised}`)

export const median = (values: number[]): number =>
  [...values].sort((a, b) => a - b)[values.length >> 1]!
