import type { Ask, Found } from '../../proving/drafts.ts'
import { cellsChecks } from '../cellsChecks.ts'
import type { MotionDetection } from './schema.ts'

/** Motion is checked at the nearest place: whoever moves there counts. */
export const motionChecks = (ask: Ask, d: MotionDetection): Found =>
  cellsChecks(ask, d, { classes: [], near: 0.025 })
