import { parentPort, workerData } from 'node:worker_threads'
import { coded, said } from '../../core/messages/said.ts'
import { InputError } from '../../core/errors.ts'
import { readCalendar } from '../../core/formats/iCalendar.ts'
import type { CalendarOrder, FromCalendarThread } from './calendars.ts'

const { text, id, site, from } = workerData as CalendarOrder

const answer = (): Exclude<FromCalendarThread, 'ready'> => {
  try {
    return { schedule: readCalendar(text, id, site, from) }
  } catch (error) {
    // ical.js throws errors of its own for values that are none.
    return {
      refused:
        error instanceof InputError
          ? { place: error.place, said: error.said }
          : {
              place: coded('places.calendar'),
              said: said('actions.calendarCannotBeRead', (error as Error).message.slice(0, 200))
            }
    }
  }
}
parentPort!.postMessage('ready' satisfies FromCalendarThread)
parentPort!.postMessage(answer())
