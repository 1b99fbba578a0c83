import type { ArmInputs } from '../arming/armInputs.ts'
import { wallText } from '../arming/zone.ts'
import { Evaluator, type Trigger } from '../detections/index.ts'
import type { Detection } from '../formats/plan.ts'
import { CLASSES, type TargetClass } from '../targets/classes.ts'
import { frameTime, type Tracks } from '../targets/tracks.ts'
import type { Place } from '../tuning/stretches.ts'

/** What one detection would have triggered over days, told by the hour of the day and by class. */
export interface Counted {
  count: number
  /** By hour of the site's day, and of each by class in the order of `CLASSES`. */
  hours: number[][]
}

/** A trigger with the class of its target at that moment. */
export interface Found {
  trigger: Trigger
  at: number
  cls: TargetClass
}

/**
 * Evaluates a detection over a stretch that comes in pieces, in order. The pieces share one clock: frame 1 of all is at
 * the same start, so that whoever stays from one into the next is one target.
 */
export class PieceByPiece {
  private readonly evaluator: Evaluator
  private readonly detection: Detection
  private readonly start: number

  /** @param inputs what is known of arm inputs; left out: nothing */
  constructor(
    { plan, camera }: Place,
    detection: Detection,
    start: number,
    fps: number,
    inputs?: ArmInputs
  ) {
    this.detection = detection
    this.start = start
    this.evaluator = new Evaluator({
      plan,
      camera: { ...camera, detections: [{ ...detection, enabled: true, parked: undefined }] },
      fps,
      start,
      ...(inputs && { inputs })
    })
  }

  /** The triggers of the next piece, whose frames must be later than those before. */
  push(tracks: Tracks): Found[] {
    let i = 0
    return this.evaluator.push(tracks).map((trigger) => {
      while (i < tracks.length && tracks.frame[i]! < trigger.frame) i++
      let row = i
      while (
        row < tracks.length &&
        tracks.frame[row] === trigger.frame &&
        tracks.id[row] !== trigger.target
      )
        row++
      const seen = row < tracks.length && tracks.frame[row] === trigger.frame
      return {
        trigger: { ...trigger, detection: this.detection.id },
        at: this.start + 1000 * frameTime(trigger.frame, tracks.fps),
        cls: CLASSES[seen ? tracks.cls[row]! : 0]!
      }
    })
  }
}

/** Counts triggers by the hour of the site's clock and by class. */
export function countByHour(found: readonly Found[], timeZone: string): Counted {
  const hours = Array.from({ length: 24 }, () => new Array<number>(CLASSES.length).fill(0))
  for (const { at, cls } of found)
    hours[Number(wallText(at, timeZone).slice(11, 13))]![CLASSES.indexOf(cls)]!++
  return { count: found.length, hours }
}
