import { useCallback, useLayoutEffect, useRef, useState } from 'react'

/** A function that is always the same to whoever is given it, and does what the newest one does. For handlers, not for rendering. */
export function useStable<A extends unknown[], R>(latest: (...args: A) => R): (...args: A) => R {
  const held = useRef(latest)
  useLayoutEffect(() => {
    held.current = latest
  })
  return useCallback((...args: A) => held.current(...args), [])
}

/** The same of several handlers in one object. */
export function useStableAll<T extends { [K in keyof T]: (...args: never[]) => unknown }>(
  latest: T
): T {
  const held = useRef(latest)
  useLayoutEffect(() => {
    held.current = latest
  })
  // The names of the handlers do not change from one rendering to the next.
  const [handlers] = useState(
    () =>
      Object.fromEntries(
        Object.keys(latest).map((key) => [
          key,
          (...args: never[]) => held.current[key as keyof T](...args)
        ])
      ) as T
  )
  return handlers
}

/** The value that was given when `key` came to be what it is: for values that are made anew each time, told apart by their key. */
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
