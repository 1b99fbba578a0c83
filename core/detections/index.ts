export type { ClipEvidence, Evidence } from './evidence.ts'
export { Evaluator, evaluate, type Setting } from './evaluator.ts'
export { traceFrames, type FrameTrace } from './frameTrace.ts'
export {
  explain,
  explainAll,
  isNearMiss,
  missingOf,
  rowsOf,
  type Ladder,
  type Trace
} from './ladder.ts'
export { motionLevel } from '../kinds/cellsInMotion.ts'
export { needOf } from './need.ts'
export type { Direction, GateName, GateReading, Trigger } from './types.ts'
