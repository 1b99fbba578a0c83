/** The share of the body that must be over a line or in a zone, of a sensitivity of 1 to 100. */
export const needOf = (sensitivity: number): number => Math.max(0.01, 1 - sensitivity / 100)
