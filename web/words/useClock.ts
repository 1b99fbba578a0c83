import { useMemo } from 'react'
import { dateAndSecond, dateAndTime, minuteOfDay, timeOfDay } from '../../core/messages/format.ts'
import { here } from '../api/here.ts'
import { useSite } from '../api/queries.ts'

/** Instants as the site's clock shows them. */
export interface Clock {
  /** `21:30:05`. */
  time: (at: number) => string
  /** `21:30`. */
  minute: (at: number) => string
  /** `26 Nov 2026, 21:30`. */
  dateAndTime: (at: number) => string
  /** `26 Nov 2026, 21:30:05`. */
  dateAndSecond: (at: number) => string
}

/** The clock of the site, wherever the browser stands. Until the site has been read it shows nothing. */
export function useClock(): Clock {
  const site = useSite().data?.timeZone
  // Outside of all sites there is no other clock than the browser's.
  const timeZone = here() === null ? Intl.DateTimeFormat().resolvedOptions().timeZone : site
  return useMemo(() => {
    const on =
      (format: (at: number, timeZone: string) => string) =>
      (at: number): string =>
        timeZone === undefined ? '' : format(at, timeZone)
    return {
      time: on(timeOfDay),
      minute: on(minuteOfDay),
      dateAndTime: on(dateAndTime),
      dateAndSecond: on(dateAndSecond)
    }
  }, [timeZone])
}
