import { useCallback, useLayoutEffect, useMemo, useRef } from 'react'

/** A function that is always the same to whoever is given it, and does what the newest one does. For handlers, not for rendering. */
export function useStable<A extends unknown[], R>(latest: (...args: A) => R): (...args: A) => R {
  const held = useRef(latest)
  useLayoutEffect(() => {
    held.current = latest
  })
  return useCallback((...args: A) => held.current(...args), [])
}

/** The same of several handlers in one object. */
export function useStableAll<T extends { [K in keyof T]: (...args: never[]) => unknown }>(latest: T): T {
  const held = useRef(latest)
  useLayoutEffect(() => {
    held.current = latest
  })
  // The names of the handlers do not change from one rendering to the next.
  return useMemo(() => Object.fromEntries(Object.keys(latest).map((key) => [key, (...args: never[]) => held.current[key as keyof T](...args)])) as T, []) // eslint-disable-line react-hooks/exhaustive-deps -- made once
}
