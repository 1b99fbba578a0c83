import { useEffect, useState } from 'react'

const MINUTE = 60_000

/** The current minute; time goes on while a place is open. */
export function useMinute(): number {
  const [now, setNow] = useState(Date.now)
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), MINUTE / 2)
    return () => clearInterval(timer)
  }, [])
  return now
}
