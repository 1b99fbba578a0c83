import { coded, said, type Said } from '../../core/messages/said.ts'
import { Worker } from 'node:worker_threads'
import { InputError } from '../../core/errors.ts'
import type { CalendarSite } from '../../core/formats/iCalendar.ts'
import type { Schedule } from '../../core/formats/plan.ts'
import { tooMany } from '../errors.ts'

export interface CalendarOrder {
  text: string
  id: string
  site: CalendarSite
  from: number
}

export type FromCalendarThread =
  'ready' | { schedule: Schedule } | { refused: { place: string; said: Said | string } }

/** From when the thread has begun to read: on a machine that is busy it takes a while to come up. */
const WITHIN_MS = 5000
const READY_WITHIN_MS = 120_000
const AT_ONCE = 2
const MEGABYTES = 256

let running = 0

/**
 * Reads a calendar that somebody has sent, in a thread of its own: some rules never come to an end, and only ending the
 * thread ends them.
 *
 * @throws InputError with what is wrong with it, or that it takes too long; ApiError when several are being read
 */
export async function readInThread(order: CalendarOrder): Promise<Schedule> {
  if (running >= AT_ONCE) throw tooMany(said('actions.otherCalendarsAreBeingRead'))
  running++
  const worker = new Worker(new URL('./calendarThread.mjs', import.meta.url), {
    workerData: order,
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: MEGABYTES }
  })
  let late: NodeJS.Timeout | undefined
  try {
    const answer = await new Promise<Exclude<FromCalendarThread, 'ready'>>((resolve, reject) => {
      late = setTimeout(() => reject(tooMany(said('actions.theServerIsTooBusy'))), READY_WITHIN_MS)
      const begin = (): void => {
        clearTimeout(late)
        late = setTimeout(
          () =>
            reject(
              new InputError(
                coded('places.calendar'),
                said('actions.takesLongerThanSTo', WITHIN_MS / 1000)
              )
            ),
          WITHIN_MS
        )
      }
      worker.on('message', (message: FromCalendarThread) =>
        message === 'ready' ? begin() : resolve(message)
      )
      worker.once('error', (error: NodeJS.ErrnoException) =>
        reject(
          error.code === 'ERR_WORKER_OUT_OF_MEMORY'
            ? new InputError(coded('places.calendar'), said('actions.hasFarTooManyDates'))
            : error
        )
      )
      worker.once('exit', (code) =>
        reject(new Error(`the calendar thread ended with code ${code}`))
      )
    })
    if ('refused' in answer) throw new InputError(answer.refused.place, answer.refused.said)
    return answer.schedule
  } finally {
    clearTimeout(late)
    await worker.terminate()
    running--
  }
}
