export type { Evidence } from './evidence.ts'
export { Evaluator, evaluate, type Setting } from './evaluator.ts'
export { traceFrames, type FrameTrace } from './frameTrace.ts'
export {
  explain,
  explainAll,
  gateNames,
  isNearMiss,
  missingOf,
  rowsOf,
  type Ladder,
  type Trace
} from './ladder.ts'
export { motionLevel } from './motion.ts'
export { causeWords } from './tamper.ts'
export { needOf } from './line.ts'
export type { Direction, GateName, GateReading, Trigger } from './types.ts'
