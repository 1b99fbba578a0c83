import { said } from '../../messages/said.ts'
import type { Ask, Found } from '../../proving/drafts.ts'
import { zoneChecks } from '../zoneChecks.ts'
import type { ExitDetection } from './schema.ts'

/** Somebody who leaves, and who only enters; every gate. */
export const exitChecks = (ask: Ask, d: ExitDetection): Found =>
  zoneChecks(ask, d, {
    name: said('checkNames.leavesZone'),
    counts: ({ outOf }) => outOf,
    wrong: ({ into }) => into && { way: into.slice(0, 2), name: said('checkNames.onlyEnters') },
    deep: false,
    shallow: false
  })
