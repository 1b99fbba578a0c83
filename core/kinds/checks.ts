import type { Ask, Found } from '../proving/drafts.ts'
import { classMotionChecks } from './classMotion/checks.ts'
import { contactChecks } from './contact/checks.ts'
import { entryChecks } from './entry/checks.ts'
import { exitChecks } from './exit/checks.ts'
import { faceChecks } from './face/checks.ts'
import { intrusionChecks } from './intrusion/checks.ts'
import { lineChecks } from './line/checks.ts'
import { loiteringChecks } from './loitering/checks.ts'
import { motionChecks } from './motion/checks.ts'
import { signalLossChecks } from './signalLoss/checks.ts'
import { tamperChecks } from './tamper/checks.ts'
import type { Detection, DetectionKind } from './schemas.ts'

/** The checks that each kind proposes. */
const checks: {
  [K in DetectionKind]: (ask: Ask, detection: Extract<Detection, { kind: K }>) => Found
} = {
  line: lineChecks,
  intrusion: intrusionChecks,
  entry: entryChecks,
  exit: exitChecks,
  loitering: loiteringChecks,
  motion: motionChecks,
  classMotion: classMotionChecks,
  tamper: tamperChecks,
  signalLoss: signalLossChecks,
  contact: (_, d) => contactChecks(d),
  face: faceChecks
}

/** What a detection's kind proposes to check it with. */
export const checksOf = (ask: Ask): Found => checks[ask.detection.kind](ask, ask.detection as never)
