import { said, type Said } from '../messages/said.ts'
import { ArmedHours } from '../arming/armedHours.ts'
import { isSet, type ArmInputs } from '../arming/armInputs.ts'
import type { Camera, Detection, Plan, TargetGated } from '../formats/plan.ts'
import { sizeLimits } from '../kinds/sizeLimits.ts'
import { heightOf, type CameraPose } from '../scene/camera.ts'
import { atLeast, contains, type Point } from '../geometry/shapes.ts'
import { CLASSES, type TargetClass } from '../targets/classes.ts'
import type { GateReading, Sighting } from './types.ts'

/**
 * Whether a likelihood is worth saying. Rows that were kept before there was one have 1, or 0.5 where the target was
 * hidden.
 */
const isLikely = ({ cls, likelihood }: Sighting): boolean =>
  cls !== 0 && likelihood < 0.995 && likelihood !== 0.5

/** The gates common to all target kinds (docs/detections.md, *Gates common to all target kinds*), of one detection. */
export class Gates {
  private readonly detection: Detection
  private readonly classes: readonly TargetClass[]
  private readonly confirmSeconds: number
  private readonly size: TargetGated['size']
  private readonly ignore: readonly (readonly Point[])[]
  /** By index of class; null when every class passes. */
  private readonly classPasses: boolean[] | null
  private readonly hours: ArmedHours | null
  private readonly scheduleName: string
  private readonly timeZone: string
  private readonly scene: CameraPose | null
  private readonly inputs: ArmInputs
  private lastTrigger: number | null = null

  constructor(
    detection: Detection,
    camera: Pick<Camera, 'ignore' | 'scene'>,
    plan: Pick<Plan, 'schedules' | 'timeZone' | 'position'>,
    inputs: ArmInputs = {}
  ) {
    this.detection = detection
    this.ignore = camera.ignore
    this.scene = camera.scene ?? null
    this.inputs = inputs
    // Kinds that look at no target have none of these.
    const gated = 'classes' in detection ? detection : null
    this.classes = gated?.classes ?? []
    this.confirmSeconds = gated?.confirmSeconds ?? 0
    this.size = gated?.size
    this.classPasses = this.classes.length
      ? CLASSES.map((name) => this.classes.includes(name))
      : null
    const schedule = plan.schedules.find((s) => s.id === detection.schedule)
    if (detection.schedule && !schedule)
      throw new TypeError(`schedule ${detection.schedule} is not in the plan`)
    this.hours = schedule ? new ArmedHours(schedule, plan.timeZone, plan.position) : null
    this.scheduleName = schedule?.name ?? 'always'
    this.timeZone = plan.timeZone
  }

  /** Whether all common gates let the target through at this row. */
  pass(s: Sighting): boolean {
    return this.passTarget(s) && this.passMoment(s.time, s.instant)
  }

  /** The gates that look at the target: class, size, confirm, ignore areas; the cheap ones first. */
  passTarget(s: Sighting): boolean {
    return (
      (this.classPasses === null || this.classPasses[s.cls]!) &&
      this.sizePasses(s) &&
      atLeast(s.time - s.record.classSince, this.confirmSeconds) &&
      !this.ignored(s)
    )
  }

  /** The gates that look at the moment: re-trigger delay, armed. */
  passMoment(time: number, instant: number): boolean {
    return (
      this.holdOffPasses(time) &&
      this.inputPasses(instant) &&
      (this.hours === null || this.hours.intervalAt(instant) !== null)
    )
  }

  private inputPasses(instant: number): boolean {
    const { armInput } = this.detection
    return !armInput || isSet(this.inputs, armInput.input, instant) !== armInput.inverted
  }

  /** A trigger of the detection was let out; the re-trigger delay runs from here. */
  noteTrigger(time: number): void {
    this.lastTrigger = time
  }

  private sizePasses(s: Sighting): boolean {
    const { size } = this
    if (!size) return true
    const { w, h } = s
    const { min, max } = size
    if (size.minMetres !== undefined || size.maxMetres !== undefined) {
      const height = this.scene && heightOf(this.scene, s)
      if (
        height === null ||
        height < (size.minMetres ?? 0) ||
        height > (size.maxMetres ?? Infinity)
      )
        return false
    }
    if (min && w <= min.w && h <= min.h) return false
    return !(max && (w > max.w || h > max.h))
  }

  private ignored({ x, y, w, h }: Sighting): boolean {
    return this.ignore.some((area) => contains(area, x + w / 2, y + h))
  }

  private holdOffPasses(time: number): boolean {
    return (
      this.lastTrigger === null || atLeast(time - this.lastTrigger, this.detection.holdOffSeconds)
    )
  }

  /** What each gate measures at this row, in the order of the ladder. */
  read(s: Sighting): GateReading[] {
    const cls = CLASSES[s.cls]!
    const readings: GateReading[] = [
      {
        gate: 'class',
        passed: this.classPasses === null || this.classPasses[s.cls]!,
        measured: isLikely(s)
          ? said('why.classLikely', said(`classes.${cls}`), s.likelihood)
          : said(`classes.${cls}`),
        limit: this.classes.length
          ? said(
              'why.oneOf',
              this.classes.map((c) => said(`classes.${c}`))
            )
          : said('why.anyClass')
      },
      this.readSize(s)
    ]
    if (this.ignore.length)
      readings.push({
        gate: 'ignore',
        passed: !this.ignored(s),
        measured: this.ignored(s) ? said('why.insideIgnoreArea') : said('why.outside'),
        limit: said('why.outsideIgnoreAreas')
      })
    const held = s.time - s.record.classSince
    readings.push({
      gate: 'confirm',
      passed: atLeast(held, this.confirmSeconds),
      measured: said('why.classFor', said(`classes.${cls}`), held),
      limit: said('why.atLeastSeconds', this.confirmSeconds),
      value: held,
      needed: this.confirmSeconds
    })
    return [...readings, ...this.readMoment(s.time, s.instant)]
  }

  /** What the gates that look at the moment measure. */
  readMoment(time: number, instant: number): GateReading[] {
    const d = this.detection
    const armed = this.hours?.intervalAt(instant)
    const readings: GateReading[] = [
      {
        gate: 'armed',
        passed: this.inputPasses(instant) && (this.hours === null || armed != null),
        measured: this.withInput(
          said('why.clock', instant, this.timeZone),
          d.armInput && isSet(this.inputs, d.armInput.input, instant)
        ),
        limit: this.withInput(
          this.hours === null
            ? said('values.alwaysArmed')
            : this.armedLimit(instant, armed ?? null),
          d.armInput && !d.armInput.inverted
        )
      }
    ]
    if (d.holdOffSeconds > 0) {
      const since = this.lastTrigger === null ? null : time - this.lastTrigger
      readings.push({
        gate: 'holdOff',
        passed: this.holdOffPasses(time),
        measured:
          since === null ? said('why.noTriggerBefore') : said('why.sinceLastTrigger', since),
        limit: said('why.atLeastSeconds', d.holdOffSeconds),
        value: since ?? undefined,
        needed: since === null ? undefined : d.holdOffSeconds
      })
    }
    return readings
  }

  private withInput(what: Said, set: boolean | undefined): Said {
    const { armInput } = this.detection
    return armInput ? said('why.andInput', what, armInput.input, set === true) : what
  }

  private armedLimit(instant: number, armed: readonly [number, number] | null): Said {
    if (armed)
      return armed[1] === Infinity
        ? said('why.scheduleAlways', this.scheduleName)
        : said('why.scheduleUntil', this.scheduleName, armed[1], this.timeZone)
    const next = this.hours?.nextAfter(instant)
    return next
      ? said('why.scheduleFrom', this.scheduleName, next[0], this.timeZone)
      : said('why.scheduleNever', this.scheduleName)
  }

  /**
   * How much of the limit that it comes nearest to missing a target has: below 1, it is too small
   * or too large by as much.
   */
  private sizeShare({ w, h }: Sighting, height: number | null): number {
    const { min, max, minMetres, maxMetres } = this.size!
    const shares: number[] = []
    // Nothing is as large as a frame without a side: 0 then is no limit.
    if (min && min.w > 0 && min.h > 0) shares.push(Math.max(w / min.w, h / min.h))
    if (max) shares.push(Math.min(max.w / w, max.h / h))
    if (minMetres !== undefined && minMetres > 0)
      shares.push(height === null ? 0 : height / minMetres)
    if (maxMetres !== undefined)
      shares.push(height === null ? 0 : maxMetres / Math.max(height, 1e-9))
    return shares.length ? Math.min(...shares) : 1
  }

  private readSize(s: Sighting): GateReading {
    const { minMetres, maxMetres } = this.size ?? {}
    const metres = minMetres !== undefined || maxMetres !== undefined
    const height = metres && this.scene ? heightOf(this.scene, s) : null
    const limits = sizeLimits(this.size ?? {})
    return {
      gate: 'size',
      passed: this.sizePasses(s),
      measured: metres
        ? height === null
          ? said('why.notOnGround')
          : said('why.metres', height)
        : said('why.ofPicture', s.w, s.h),
      limit: limits.length ? said('why.all', limits) : said('why.anySize'),
      ...(limits.length > 0 && { value: this.sizeShare(s, height), needed: 1 })
    }
  }
}
