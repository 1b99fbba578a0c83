import { useEffect } from 'react'

/** What is not kept yet is sent when the page, or the place, is left. */
export function useFlushed(document: { flush(): void }): void {
  useEffect(() => {
    const flush = (): void => document.flush()
    window.addEventListener('pagehide', flush)
    return () => {
      window.removeEventListener('pagehide', flush)
      flush()
    }
  }, [document])
}
