import { sensitivityChange, type GateChange, type Works } from '../tuning/candidates.ts'
import { faceTuning } from './face/tuning.ts'
import { lineTuning } from './line/tuning.ts'
import type { DetectionKind, TargetGated } from './schemas.ts'
import { stayTuning } from './stayTuning.ts'

type Tuning<D> = (d: D, looser: boolean, works: Works) => Iterable<GateChange>

/** Changes to each kind's own gates that may let a target through, or keep it out. Kinds without targets have none. */
const tuning: {
  [K in DetectionKind & TargetGated['kind']]: Tuning<Extract<TargetGated, { kind: K }>>
} = {
  line: lineTuning,
  // The shortest dwells that the schemas allow.
  intrusion: (d, looser, works) => stayTuning(d, 0, looser, works),
  loitering: (d, looser, works) => stayTuning(d, 1, looser, works),
  entry: sensitivityChange,
  exit: sensitivityChange,
  classMotion: () => [],
  face: faceTuning
}

/** Candidates for a change to a gate of the detection's own kind. */
export const ownChanges = (d: TargetGated, looser: boolean, works: Works): Iterable<GateChange> =>
  tuning[d.kind](d as never, looser, works)
