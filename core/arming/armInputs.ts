/** An arm input, such as an alarm panel's set state: the instants at which it became set or unset, in order of time. */
export type ArmInputs = Readonly<Record<string, readonly ArmChange[]>>

export interface ArmChange {
  /** Milliseconds of UTC. */
  at: number
  set: boolean
}

/** Whether an input is set at an instant: as its last change says; before the first one, and unknown ones, not. */
export function isSet(inputs: ArmInputs, input: string, instant: number): boolean {
  const changes = inputs[input] ?? []
  let low = 0
  let high = changes.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (changes[middle]!.at <= instant) low = middle + 1
    else high = middle
  }
  return low > 0 && changes[low - 1]!.set
}
