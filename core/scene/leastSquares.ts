/** Solves a small linear system by Gaussian elimination with partial pivoting; null when it is singular. */
export function solveLinear(
  matrix: readonly (readonly number[])[],
  right: readonly number[]
): number[] | null {
  const n = right.length
  const rows = matrix.map((row, i) => [...row, right[i]])
  for (let column = 0; column < n; column++) {
    let pivot = column
    for (let r = column + 1; r < n; r++)
      if (Math.abs(rows[r]![column]!) > Math.abs(rows[pivot]![column]!)) pivot = r
    if (!(Math.abs(rows[pivot]![column]!) > 1e-14)) return null
    ;[rows[column], rows[pivot]] = [rows[pivot]!, rows[column]!]
    for (let r = 0; r < n; r++) {
      if (r === column) continue
      const factor = rows[r]![column]! / rows[column]![column]!
      for (let c = column; c <= n; c++) rows[r]![c]! -= factor * rows[column]![c]!
    }
  }
  return rows.map((row, i) => row[n]! / row[i]!)
}

export interface Fit {
  parameters: number[]
  /** Sum of the squared residuals. */
  squares: number
  /** Standard error of each parameter, from the residuals and the curvature; Infinity where the data do not tell. */
  errors: number[]
}

const sumOfSquares = (r: readonly number[]): number => r.reduce((sum, v) => sum + v * v, 0)

/**
 * Nonlinear least squares. Source: Levenberg–Marquardt with numerical derivatives, as in Madsen, Nielsen and
 * Tingleff, *Methods for Non-Linear Least Squares Problems*, 3.2 (from memory).
 *
 * @param residuals of the parameters; any that is not finite makes the place forbidden
 */
export function leastSquares(
  residuals: (p: readonly number[]) => number[],
  start: readonly number[],
  iterations = 80
): Fit {
  let p = [...start]
  let r = residuals(p)
  let squares = sumOfSquares(r)
  let damping = 1e-3
  let normal: number[][] = []
  for (let step = 0; step < iterations; step++) {
    const slopes = p.map((value, k) => {
      const h = 1e-6 * Math.max(1, Math.abs(value))
      const moved = residuals(p.map((v, i) => (i === k ? v + h : v)))
      return moved.map((v, i) => (v - r[i]!) / h)
    })
    normal = slopes.map((a) => slopes.map((b) => a.reduce((sum, v, i) => sum + v * b[i]!, 0)))
    const gradient = slopes.map((a) => a.reduce((sum, v, i) => sum + v * r[i]!, 0))
    let moved = false
    while (damping < 1e12) {
      const change = solveLinear(
        normal.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) + 1e-12 : v))),
        gradient.map((g) => -g)
      )
      const next = change && p.map((v, i) => v + change[i]!)
      const nextResiduals = next && residuals(next)
      const nextSquares = nextResiduals ? sumOfSquares(nextResiduals) : NaN
      if (nextSquares <= squares) {
        moved = squares - nextSquares > 1e-16 * (1 + squares)
        p = next!
        r = nextResiduals!
        squares = nextSquares
        damping = Math.max(1e-9, damping / 5)
        break
      }
      damping *= 4
    }
    if (!moved) break
  }
  const spare = r.length - p.length
  const variance = spare > 0 ? squares / spare : 0
  const errors = p.map((_, k) => {
    const column = solveLinear(
      normal,
      p.map((__, i) => (i === k ? 1 : 0))
    )
    const v = column ? column[k]! : Infinity
    return v >= 0 ? Math.sqrt(variance * v) : Infinity
  })
  return { parameters: p, squares, errors }
}
