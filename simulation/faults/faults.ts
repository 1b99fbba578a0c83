import type { Sheet } from '../paint/canvas.ts'
import type { FaultKind, Play, Script } from '../script.ts'
import { faultAt } from '../world.ts'
import { paintCovered } from './covered.ts'
import { paintLightsOut } from './lightsOut.ts'
import type { FaultPainting } from './painting.ts'
import { paintSprayed } from './sprayed.ts'
import { paintWashedOut } from './washedOut.ts'

interface Fault {
  /** Over the painted picture. */
  paint?: FaultPainting
  /** What happens to the camera's pictures: none comes, the last one stays, or they are out of focus. */
  picture?: 'none' | 'frozen' | 'blurred'
  /** Whether the camera's analysis sees nobody. */
  blinds: boolean
}

/** What each fault does. One that moves the camera is part of where it looks (`viewAt`). */
const faults: Record<FaultKind, Fault> = {
  covered: { paint: paintCovered, blinds: true },
  sprayed: { paint: paintSprayed, blinds: true },
  lightsOut: { paint: paintLightsOut, blinds: true },
  washedOut: { paint: paintWashedOut, blinds: true },
  defocused: { picture: 'blurred', blinds: true },
  knocked: { blinds: false },
  cableCut: { picture: 'none', blinds: true },
  frozen: { picture: 'frozen', blinds: true }
}
const kinds = Object.keys(faults) as FaultKind[]

/** Whether the pictures of a moment have become so, and for how many seconds; null: they have not. */
export function pictureAt(
  script: Script,
  picture: NonNullable<Fault['picture']>,
  time: number
): number | null {
  const kind = kinds.find((k) => faults[k].picture === picture)
  return kind ? faultAt(script, kind, time) : null
}

/** Whether the camera's analysis sees nobody at a moment. */
export const isBlind = (script: Script, time: number): boolean =>
  kinds.some((kind) => faults[kind].blinds && faultAt(script, kind, time) !== null)

/** What is done to the lens or to the light of the place; after everything else. */
export function paintFaults(sheet: Sheet, play: Play, time: number): void {
  for (const kind of kinds) {
    const since = faultAt(play.script, kind, time)
    if (since !== null) faults[kind].paint?.(sheet, play, since)
  }
}
