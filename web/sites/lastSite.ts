const KEY = 'wardoptic-site'

/** The site that was shown last in this browser; null: none, or it keeps nothing. */
export function lastSite(): string | null {
  try {
    return localStorage.getItem(KEY)
  } catch {
    return null
  }
}

export function rememberSite(id: string): void {
  try {
    localStorage.setItem(KEY, id)
  } catch {
    // A browser that keeps nothing asks each time.
  }
}
