import { performance } from 'node:perf_hooks'
import { setTimeout as pause } from 'node:timers/promises'

/** So many are always worked on: what people ask for goes first, and yet the work goes on. */
const ALWAYS = 2
/** More only while the main thread was busy for at most this share of the last moment. */
const BUSY = 0.7
const MOMENT_MS = 100

/**
 * Does work for each item, so many at a time at most: fewer while the main thread has its hands full, since each answer to
 * somebody would wait for all of them. Devices that are slow to answer leave it free.
 */
export async function mapConcurrent<T>(
  most: number,
  items: readonly T[],
  work: (item: T) => Promise<void>
): Promise<void> {
  let next = 0
  const turn = async (place: number): Promise<void> => {
    while (next < items.length) {
      if (place >= ALWAYS && !(await hasRoom())) continue
      if (next < items.length) await work(items[next++]!)
    }
  }
  await Promise.all(Array.from({ length: Math.min(most, items.length) }, (_, k) => turn(k)))
}

async function hasRoom(): Promise<boolean> {
  const before = performance.eventLoopUtilization()
  await pause(MOMENT_MS)
  return performance.eventLoopUtilization(before).utilization <= BUSY
}
