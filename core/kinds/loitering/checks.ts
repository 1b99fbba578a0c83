import { said } from '../../messages/said.ts'
import type { Ask, Found } from '../../proving/drafts.ts'
import { inAndOut, zoneChecks } from '../zoneChecks.ts'
import type { LoiteringDetection } from './schema.ts'

/** Somebody who goes in and stays, and every gate. */
export const loiteringChecks = (ask: Ask, d: LoiteringDetection): Found =>
  zoneChecks(ask, d, {
    name: said('checkNames.goesInAndStays'),
    counts: inAndOut,
    deep: false,
    shallow: true
  })
