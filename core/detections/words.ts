import { offsetAt as offsetOf } from '../arming/zone.ts'

/** Numbers and moments as people read them on the ladder. */
export const percent = (share: number): string => `${Math.round(share * 1000) / 10} %`
export const seconds = (s: number): string => `${(Math.round(s * 10) / 10).toFixed(1)} s`

/** Clocks change on the quarter hour of UTC at the earliest; asking the zone again within one would only cost. */
const QUARTER = 15 * 60_000
let last = { timeZone: '', quarter: NaN, offset: 0 }

function offsetAt(instant: number, timeZone: string): number {
  const quarter = Math.floor(instant / QUARTER)
  if (last.timeZone !== timeZone || last.quarter !== quarter)
    last = { timeZone, quarter, offset: offsetOf(timeZone, instant) }
  return last.offset
}

/** `Mon 18:30:05`, wall clock of the time zone; the seconds only where there are some. */
export function clockAt(instant: number, timeZone: string): string {
  const local = new Date(instant + offsetAt(instant, timeZone) * 60_000)
  const day = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'][local.getUTCDay()]
  const clock = local.toISOString().slice(11, 19)
  return `${day} ${clock.endsWith(':00') ? clock.slice(0, 5) : clock}`
}
