import type { FrameRun } from '../detections/frames.ts'
import type { Gates } from '../detections/gates.ts'
import type { KindRun } from '../detections/types.ts'
import { ClassMotionRun } from './classMotion/run.ts'
import { ContactRun } from './contact/run.ts'
import { entry } from './entry/run.ts'
import { exit } from './exit/run.ts'
import { FaceRun } from './face/run.ts'
import { intrusion } from './intrusion/run.ts'
import { LineRun } from './line/run.ts'
import { loitering } from './loitering/run.ts'
import { MotionRun } from './motion/run.ts'
import type { Detection, DetectionKind } from './schemas.ts'
import { SignalLossRun } from './signalLoss/run.ts'
import { TamperRun } from './tamper/run.ts'

/**
 * What each kind does with the rows or frames of a clip. Apart from the registry, because what checks
 * and tuning propose is found by asking the engine, which runs these.
 */
const runs: {
  [K in DetectionKind]: (
    detection: Extract<Detection, { kind: K }>,
    gates: Gates
  ) => KindRun | FrameRun
} = {
  line: (detection, gates) => new LineRun(detection, gates),
  intrusion,
  loitering,
  entry,
  exit,
  motion: (detection, gates) => new MotionRun(detection, gates),
  classMotion: (detection, gates) => new ClassMotionRun(detection, gates),
  tamper: (detection, gates) => new TamperRun(detection, gates),
  signalLoss: (detection, gates) => new SignalLossRun(detection, gates),
  contact: (detection, gates) => new ContactRun(detection, gates),
  face: (detection, gates) => new FaceRun(detection, gates)
}

/** A run of a detection, from its first frame on. */
export const runOf = (detection: Detection, gates: Gates): KindRun | FrameRun =>
  runs[detection.kind](detection as never, gates)
