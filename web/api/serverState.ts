import { useSyncExternalStore } from 'react'

/** What is wrong with the server, in words; null: nothing that is known. */
let wrong: string | null = null
const watchers = new Set<() => void>()

/** Reported by whatever notices: an answer, or the live connection. */
export function setServerState(words: string | null): void {
  if (words === wrong) return
  wrong = words
  for (const watcher of watchers) watcher()
}

const watch = (watcher: () => void): (() => void) => {
  watchers.add(watcher)
  return () => void watchers.delete(watcher)
}

export const useServerState = (): string | null => useSyncExternalStore(watch, () => wrong)
