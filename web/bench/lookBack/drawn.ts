import { useMemo } from 'react'
import type { Detection, Schedule } from '../../../core/formats/plan.ts'
import { useContents } from '../contexts.ts'

/** Days that are looked back over when a detection is counted or tuned. */
export const TUNED_DAYS = 7
const DAY_MS = 86_400_000
const HOUR_MS = 3_600_000

/** What the server needs of a detection as it is drawn, to answer for the last days. */
export interface Drawn {
  from: number
  to: number
  schedules: Schedule[]
  ignore: [number, number][][]
}

/** Whole hours, so that what is asked again within one is the same question. */
function lastDays(): { from: number; to: number } {
  const to = Math.ceil(Date.now() / HOUR_MS) * HOUR_MS
  return { from: to - TUNED_DAYS * DAY_MS, to }
}

export function useDrawn(detection: Detection): Drawn {
  const { schedules, scene } = useContents()
  return useMemo(
    () => ({
      ...lastDays(),
      schedules: schedules.filter(({ id }) => id === detection.schedule),
      ignore: scene.ignore.map((area) => area.map(([x, y]): [number, number] => [x, y]))
    }),
    [schedules, scene.ignore, detection.schedule]
  )
}
