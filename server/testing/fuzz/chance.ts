/**
 * Chance that can be had again: the same seed gives the same numbers (mulberry32, Tommy Ettinger,
 * public domain; from memory).
 */
export class Chance {
  private state: number

  constructor(seed: number) {
    this.state = seed >>> 0
  }

  /** From 0 up to but not 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0
    let t = this.state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }

  below(n: number): number {
    return Math.floor(this.next() * n)
  }

  is(share: number): boolean {
    return this.next() < share
  }

  of<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!
  }
}
