declare module 'munkres-js' {
  /** Pairs [row, column] of the cheapest assignment of a cost matrix, which may be rectangular. */
  export default function munkres(costs: number[][]): [number, number][]
}
