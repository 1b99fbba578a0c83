import { useLayoutEffect, useState } from 'react'

/**
 * A function that is always the same to whoever is given it, and does what the newest one does. For
 * handlers, not for rendering.
 */
export const useStable = <A extends unknown[], R>(latest: (...args: A) => R): ((...args: A) => R) =>
  useStableAll({ latest }).latest

/** The same of several handlers in one object. */
export function useStableAll<T extends Functions<T>>(latest: T): T {
  const [handlers] = useState(() => new Handlers(latest))
  useLayoutEffect(() => handlers.become(latest))
  return handlers.stable
}

type Functions<T> = { [K in keyof T]: (...args: never[]) => unknown }

/** The same functions for ever, which do what the newest ones do. Their names do not change. */
class Handlers<T extends Functions<T>> {
  readonly stable: T
  private latest: T

  constructor(latest: T) {
    this.latest = latest
    this.stable = Object.fromEntries(
      Object.keys(latest).map((key) => [
        key,
        (...args: never[]) => this.latest[key as keyof T](...args)
      ])
    ) as T
  }

  become(latest: T): void {
    this.latest = latest
  }
}

/**
 * The value that was given when `key` came to be what it is: for values that are made again each
 * time, told apart by their key.
 */
export function useKeyed<T>(key: string, value: T): T {
  const [held, setHeld] = useState({ key, value })
  if (held.key === key) return held.value
  setHeld({ key, value })
  return value
}

/** The list that was given first, as long as the next ones hold the same. */
export function useSame<T>(list: readonly T[]): readonly T[] {
  const [held, setHeld] = useState(list)
  if (held.length === list.length && held.every((item, i) => item === list[i])) return held
  setHeld(list)
  return list
}
