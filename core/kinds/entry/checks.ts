import { said } from '../../messages/said.ts'
import type { Ask, Found } from '../../proving/drafts.ts'
import { inAndOut, zoneChecks } from '../zoneChecks.ts'
import type { EntryDetection } from './schema.ts'

/** Somebody who enters, and who only leaves; every gate. */
export const entryChecks = (ask: Ask, d: EntryDetection): Found =>
  zoneChecks(ask, d, {
    name: said('checkNames.entersZone'),
    counts: inAndOut,
    wrong: ({ outOf }) => outOf && { way: outOf, name: said('checkNames.onlyLeaves') },
    deep: true,
    shallow: true
  })
