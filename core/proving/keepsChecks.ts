import { judge } from './judge.ts'
import type { ArmInputs } from '../arming/armInputs.ts'
import type { About, Check } from '../formats/check.ts'
import { emptyMeasures, USUAL_GRID } from '../measures/measures.ts'
import type { Tracks } from '../targets/tracks.ts'
import type { State } from '../tuning/recommend/moves.ts'
import type { Place } from '../tuning/stretches.ts'

/** A check that passed, with the targets of its walk. */
export interface WalkedCheck {
  check: Check
  tracks: Tracks
  inputs: ArmInputs
}

/**
 * Checks of these stand just on either side of a limit as it is set. A limit that is moved has others, and is rightly
 * moved past these.
 */
const OF_LIMITS: readonly About[] = [
  'share',
  'size',
  'confirm',
  'dwell',
  'together',
  'holdOff',
  'delay',
  'cells'
]

/** Whether a check says something that stays true whatever a limit is set to: who counts, and where. */
export const outlastsTuning = ({ about, by }: Pick<Check, 'about' | 'by'>): boolean =>
  by.how === 'walk' && by.through === 'truth' && !OF_LIMITS.includes(about)

/** Tells of settings whether they keep what these checks expect. */
export function keepsChecks(
  { plan, camera }: Place,
  walked: readonly WalkedCheck[]
): (state: State) => boolean {
  const measures = emptyMeasures(USUAL_GRID, USUAL_GRID.columns, USUAL_GRID.rows, 1, 0)
  return ({ detection, ignore }) =>
    walked.every(
      ({ check, tracks, inputs }) =>
        judge(
          check,
          { tracks, measures },
          {
            setting: {
              plan,
              camera: {
                ...camera,
                ignore: ignore.map((area) => [...area]),
                detections: [{ ...detection, enabled: true, parked: undefined }]
              },
              fps: tracks.fps,
              start: check.at,
              inputs
            },
            follows: null
          }
        ).outcome === 'passed'
    )
}
