// The thread in which a calendar is read.
import { register } from 'tsx/esm/api'

register()
await import('./calendarThread.ts')
