import { useState } from 'react'
import type { Detection } from '../../../core/formats/plan.ts'
import type { Placed } from '../document.ts'

const SHAPE_KEYS = new Set(['line', 'zone'])

function sameButShape(a: Detection, b: Detection): boolean {
  if (a === b) return true
  const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>]
  const keys = Object.keys(x)
  return (
    keys.length === Object.keys(y).length &&
    keys.every((key) => SHAPE_KEYS.has(key) || x[key] === y[key])
  )
}

/**
 * The detections for parts that say them in words: while a shape is dragged these stay what they were, so that nothing
 * but the picture and the triggers is drawn again with every move of the pointer.
 */
export function useStill(placed: Placed[], previewing: boolean): Placed[] {
  const [held, setHeld] = useState(placed)
  const onlyShapes =
    previewing &&
    held.length === placed.length &&
    held.every(
      (p, i) =>
        p.position === placed[i]!.position && sameButShape(p.detection, placed[i]!.detection)
    )
  if (onlyShapes) return held
  if (held !== placed) setHeld(placed)
  return placed
}
