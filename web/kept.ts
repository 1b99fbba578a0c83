/** What this browser keeps for whoever uses it. One that keeps nothing (a private window, a full disk) begins anew each time. */

/** @returns null: nothing is kept under this name */
export function kept(name: string): string | null {
  try {
    return localStorage.getItem(name)
  } catch {
    return null
  }
}

export function keep(name: string, value: string): void {
  try {
    localStorage.setItem(name, value)
  } catch {
    // It is forgotten with the page.
  }
}
