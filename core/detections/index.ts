export { Evaluator, evaluate, type Setting } from './evaluator.ts'
export { explain, explainAll, isNearMiss, type GateHistory, type Ladder, type Trace } from './ladder.ts'
export { needOf } from './line.ts'
export type { Direction, GateName, GateReading, Trigger } from './types.ts'
