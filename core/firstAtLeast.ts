/**
 * Binary search: the place of the first of some numbers that is at least `value`.
 *
 * @param numbers in order, the smallest first; as many as `length` of them are looked at
 * @returns `length` where all are smaller
 */
export function firstAtLeast(
  numbers: ArrayLike<number>,
  value: number,
  length = numbers.length
): number {
  let low = 0
  let high = length
  while (low < high) {
    const middle = (low + high) >> 1
    if (numbers[middle]! < value) low = middle + 1
    else high = middle
  }
  return low
}
