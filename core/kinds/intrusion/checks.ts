import { said } from '../../messages/said.ts'
import type { Ask, Found } from '../../proving/drafts.ts'
import { inAndOut, zoneChecks } from '../zoneChecks.ts'
import type { IntrusionDetection } from './schema.ts'

/** Somebody who goes in and stays, and every gate. */
export const intrusionChecks = (ask: Ask, d: IntrusionDetection): Found =>
  zoneChecks(ask, d, {
    name: said('checkNames.goesInAndStays'),
    counts: inAndOut,
    deep: false,
    shallow: true
  })
