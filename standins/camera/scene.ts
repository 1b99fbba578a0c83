import { createCanvas } from '@napi-rs/canvas'
import { Evaluator, type Trigger } from '../../core/detections/index.ts'
import { DetectionSchema, allCells, parseWith, type Detection, type DetectionKind } from '../../core/formats/plan.ts'
import { RULE_TYPES, takeOver, type Rule, type RuleAbility } from '../../core/formats/onvif/rules.ts'
import { firstRowOfFrame, tracksFromRows, type Tracks } from '../../core/targets/tracks.ts'
import { contextOf } from '../../simulation/paint/canvas.ts'
import { Painter } from '../../simulation/paint/painter.ts'
import { makeNodeCanvas } from '../../simulation/nodeCanvas.ts'
import { QUALITIES, reportedTargets } from '../../simulation/reported.ts'
import type { Play } from '../../simulation/script.ts'

const blank: Partial<Record<DetectionKind, object>> = {
  line: { line: [[0.1, 0.5], [0.9, 0.5]] },
  intrusion: { zone: [[0.1, 0.1], [0.9, 0.1], [0.9, 0.9]] },
  loitering: { zone: [[0.1, 0.1], [0.9, 0.1], [0.9, 0.9]], dwellSeconds: 1 },
  motion: { cells: allCells() },
  tamper: {}
}

/** A device's rule as the engine computes it: what is configured is what happens. Null for a type it does not know. */
export function detectionOf(rule: Rule, abilities: readonly RuleAbility[]): Detection | null {
  const kind = (Object.keys(RULE_TYPES) as DetectionKind[]).find((k) => RULE_TYPES[k] === rule.type)
  if (!kind) return null
  const bare = parseWith(DetectionSchema, { id: 'rule', name: rule.name.slice(0, 80), kind, ...blank[kind] })
  return parseWith(DetectionSchema, { ...takeOver(bare, rule, abilities), id: rule.name.replace(/[^A-Za-z0-9_-]/g, '-').slice(0, 64) })
}

/**
 * What a camera sees of its scene, over and over again: the script's targets as a good camera reports them, its own
 * rules evaluated on them by the reference engine, and a picture of any moment.
 */
export class LiveScene {
  private readonly play: Play
  private readonly tracks: Tracks
  private readonly painter: Painter
  private evaluator: Evaluator | null = null
  private detections: Detection[] = []
  private row = 0
  private round = -1

  constructor(play: Play) {
    this.play = play
    this.tracks = tracksFromRows(reportedTargets(play, QUALITIES.good), play.scene.fps)
    this.painter = new Painter(play, makeNodeCanvas)
  }

  setRules(rules: readonly Rule[], abilities: readonly RuleAbility[]): void {
    this.detections = rules.flatMap((rule) => detectionOf(rule, abilities) ?? [])
    this.evaluator = null
  }

  /** Takes what has happened up to now. @param seconds since the device was started */
  step(seconds: number): Trigger[] {
    const length = this.play.script.seconds
    const round = Math.floor(seconds / length)
    const frame = Math.floor((seconds - round * length) * this.play.scene.fps) + 1
    if (round !== this.round || !this.evaluator) {
      if (round !== this.round) this.row = 0
      this.round = round
      this.evaluator = new Evaluator({ plan: { schedules: [], timeZone: 'UTC' }, camera: { ignore: [], detections: this.detections }, fps: this.play.scene.fps, start: 0 })
    }
    const until = firstRowOfFrame(this.tracks, frame + 1)
    const triggers = until > this.row ? this.evaluator.push(this.tracks, this.row, until) : []
    this.row = Math.max(this.row, until)
    return triggers
  }


  /** The picture of a moment, as JPEG. */
  snapshot(seconds: number): Buffer {
    const { width, height } = this.play.scene
    this.painter.paint(seconds % this.play.script.seconds)
    const canvas = createCanvas(width, height)
    const g = canvas.getContext('2d')
    const picture = contextOf(this.painter.canvas).getImageData(0, 0, width, height)
    const copy = g.createImageData(width, height)
    copy.data.set(picture.data)
    g.putImageData(copy, 0, 0)
    return canvas.toBuffer('image/jpeg', 85)
  }
}
