/** A figure with its unit, to at most two decimals: `2.5 s`. */
export const quantity = (value: number, unit: string): string =>
  `${Math.round(value * 100) / 100} ${unit}`
