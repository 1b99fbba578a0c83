import { Evaluator, type Observation, type Setting } from './evaluator.ts'
import type { GateName, GateReading } from './types.ts'
import { seconds } from './words.ts'
import type { Tracks } from '../targets/tracks.ts'

/** The gates of one target at the moment that decided, from the first to the last. */
export interface Ladder {
  detection: string
  target: number
  frame: number
  time: number
  fired: boolean
  readings: GateReading[]
  /** One sentence for people. */
  sentence: string
}

const order: GateName[] = ['class', 'size', 'ignore', 'confirm', 'direction', 'share', 'armed', 'holdOff']
const names: Record<GateName, string> = {
  class: 'class',
  size: 'size',
  ignore: 'ignore area',
  confirm: 'confirm time',
  direction: 'direction',
  share: 'body share',
  armed: 'arming hours',
  holdOff: 'hold-off'
}

const inOrder = (o: Observation): GateReading[] => [...o.common, ...o.own].sort((a, b) => order.indexOf(a.gate) - order.indexOf(b.gate))
const failures = (o: Observation): number => [...o.common, ...o.own].filter((r) => !r.passed).length

/**
 * Why a detection fired for a target, or why not: the ladder at the row of the trigger, or else at the target's
 * best moment (most of the body over, then fewest gates in the way).
 *
 * @param at frame of the trigger or moment asked about; left out: the target's first trigger, or its best moment
 * @param within frames of the target's record, when its id is used again later in the clip
 * @returns null when the target or the detection has no row there (a disabled detection has none)
 */
export function explain(setting: Setting, tracks: Tracks, detection: string, target: number, at?: number, within?: [number, number]): Ladder | null {
  let best: Observation | null = null
  const evaluator = new Evaluator(setting, {
    detection,
    target,
    see: (o) => {
      if (within && (o.sighting.frame < within[0] || o.sighting.frame > within[1])) return
      if (at !== undefined ? o.sighting.frame === at : better(o, best)) best = o
    }
  })
  evaluator.push(tracks)
  const chosen = best as Observation | null
  if (!chosen) return null
  const readings = inOrder(chosen)
  return { detection, target, frame: chosen.sighting.frame, time: chosen.sighting.time, fired: chosen.fired, readings, sentence: sentenceOf(chosen, readings) }
}

function better(o: Observation, best: Observation | null): boolean {
  if (!best) return true
  if (best.fired || o.fired) return o.fired && !best.fired
  if (Math.abs(o.nearness - best.nearness) > 1e-9) return o.nearness > best.nearness
  return failures(o) < failures(best)
}

function sentenceOf(o: Observation, readings: GateReading[]): string {
  const moment = seconds(o.sighting.time)
  const stopped = readings.filter((r) => !r.passed)
  if (o.fired) return `Triggered at ${moment}: every gate let it through.`
  const over = readings.find((r) => r.gate === 'share')
  if (over && (over.value ?? 0) === 0) return 'It never had any of its body over the line.'
  if (!stopped.length) return `At ${moment} every gate would let it through, but it had already been counted.`
  const first = stopped.find((r) => r.gate !== 'share') ?? stopped[0]
  const text =
    first.gate === 'share'
      ? `at most ${first.measured} at ${moment}, ${first.limit.replace('at least ', '')} is needed`
      : `${first.measured} at ${moment}, needed: ${first.limit}`
  const more = stopped.length > 1 ? ` Also in the way: ${stopped.filter((r) => r !== first).map((r) => names[r.gate]).join(', ')}.` : ''
  return `Stopped by ${names[first.gate]}: ${text}.${more}`
}
