import { parentPort, workerData } from 'node:worker_threads'
import { InputError } from '../../core/errors.ts'
import { readCalendar } from '../../core/formats/iCalendar.ts'
import type { CalendarOrder, FromCalendarThread } from './calendars.ts'

const { text, id, site, from } = workerData as CalendarOrder

const answer = (): Exclude<FromCalendarThread, 'ready'> => {
  try {
    return { schedule: readCalendar(text, id, site, from) }
  } catch (error) {
    // ical.js throws errors of its own for values that are none.
    const { place = 'the calendar', message } = error as Partial<InputError> & Error
    return {
      refused: {
        place,
        message:
          error instanceof InputError
            ? message.slice(place.length + 2)
            : `cannot be read: ${message.slice(0, 200)}`
      }
    }
  }
}
parentPort!.postMessage('ready' satisfies FromCalendarThread)
parentPort!.postMessage(answer())
