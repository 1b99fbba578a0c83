import type { Ask, Found } from '../../proving/drafts.ts'
import { inAndOut, zoneChecks } from '../zoneChecks.ts'
import type { EntryDetection } from './schema.ts'

/** Somebody who enters, and who only leaves; every gate. */
export const entryChecks = (ask: Ask, d: EntryDetection): Found =>
  zoneChecks(ask, d, {
    name: 'Enters the zone',
    counts: inAndOut,
    wrong: ({ outOf }) => outOf && { way: outOf, name: 'Leaves only: does not count' },
    deep: true,
    shallow: true
  })
