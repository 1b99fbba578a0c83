// The thread in which a calendar is read: this loads its program, which is TypeScript.
import { load } from '../../scripts/typescript.mjs'

await load(new URL('./calendarThread.ts', import.meta.url))
