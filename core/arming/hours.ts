/** Hours as pairs of from and to (Float64Array of milliseconds of UTC), in order, none touching the next. */
export type Hours = Float64Array

/** Milliseconds that hours add up to. */
export function total(hours: Hours): number {
  let sum = 0
  for (let i = 0; i < hours.length; i += 2) sum += hours[i + 1]! - hours[i]!
  return sum
}

/** Milliseconds that are in both. Takes time in proportion to both lengths. */
export function shared(a: Hours, b: Hours): number {
  let sum = 0
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const from = a[i]! > b[j]! ? a[i]! : b[j]!
    const to = a[i + 1]! < b[j + 1]! ? a[i + 1]! : b[j + 1]!
    if (from < to) sum += to - from
    if (a[i + 1]! < b[j + 1]!) i += 2
    else j += 2
  }
  return sum
}

/** What is in the first and not in the second: armed, and this output silent. */
export function without(a: Hours, b: Hours): Hours {
  const found: number[] = []
  for (let i = 0, j = 0; i < a.length; i += 2) {
    let from = a[i]!
    while (j < b.length && b[j + 1]! <= from) j += 2
    for (let k = j; k < b.length && b[k]! < a[i + 1]!; k += 2) {
      if (b[k]! > from) found.push(from, b[k]!)
      from = Math.max(from, b[k + 1]!)
    }
    if (from < a[i + 1]!) found.push(from, a[i + 1]!)
  }
  return Float64Array.from(found)
}

/** Whether an instant is in them: from is, to is not. */
export function holds(hours: Hours, instant: number): boolean {
  let low = 0
  let high = hours.length / 2
  while (low < high) {
    const middle = (low + high) >> 1
    if (hours[2 * middle + 1]! <= instant) low = middle + 1
    else high = middle
  }
  return 2 * low < hours.length && hours[2 * low]! <= instant
}
