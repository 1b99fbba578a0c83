import { useEffect } from 'react'

/**
 * Keeps the screen on while something is followed with both hands elsewhere. A browser that has no such thing, or a page
 * without a trusted certificate, leaves it to the device.
 */
export function useAwake(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return
    let lock: WakeLockSentinel | null = null
    let over = false
    const ask = (): void => {
      // It is lost whenever the page is hidden.
      if (document.visibilityState !== 'visible' || (lock && !lock.released)) return
      navigator.wakeLock.request('screen').then(
        (given) => {
          if (over) void given.release()
          else lock = given
        },
        () => {
          // Refused, as with an empty battery.
        }
      )
    }
    ask()
    document.addEventListener('visibilitychange', ask)
    return () => {
      over = true
      document.removeEventListener('visibilitychange', ask)
      void lock?.release()
    }
  }, [wanted])
}
