const KEY = 'wardoptic.leaving'
const RECENT_MS = 1500
const WAIT_MS = 350

/** The page goes away while something is still on its way to be kept. */
export function noteLeaving(): void {
  try {
    sessionStorage.setItem(KEY, String(Date.now()))
  } catch {
    // No session storage: it is not remembered.
  }
}

/**
 * Waits, right after a page was left so, until what it sent has had time to arrive: a reload must
 * not show what was before.
 */
export async function afterLeaving(): Promise<void> {
  try {
    const left = Number(sessionStorage.getItem(KEY) ?? 0)
    if (!left) return
    sessionStorage.removeItem(KEY)
    if (Date.now() - left < RECENT_MS) await new Promise((resolve) => setTimeout(resolve, WAIT_MS))
  } catch {
    // No session storage: as if nothing were pending.
  }
}
