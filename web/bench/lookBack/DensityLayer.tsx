import './lookBack.css'
import { useEffect, useMemo, useRef, type ReactNode } from 'react'
import { densityOf, type DensityOf } from '../../../core/targets/density.ts'
import type { TargetClass } from '../../../core/targets/classes.ts'
import type { Tracks } from '../../../core/targets/tracks.ts'
import type { Frame } from '../picture/Fitted.tsx'

export interface DensityChoice {
  of: DensityOf
  /** Null: of all classes. */
  cls: TargetClass | null
}

/** How much of a cell is covered where most was; seldom used places stay to be seen. */
const COVER = 190
const TINT = [214, 66, 148] as const

/** Where targets walked, stood, or how fast they were, over the picture and under what is drawn. */
export function DensityLayer({
  tracks,
  choice: { of, cls },
  place
}: {
  tracks: Tracks
  choice: DensityChoice
  place: Frame
}): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null)
  const aspect = place.width / place.height
  const density = useMemo(
    () => densityOf(tracks, of, cls === null ? [] : [cls], aspect),
    [tracks, of, cls, aspect]
  )
  useEffect(() => {
    const context = canvas.current?.getContext('2d')
    if (!context) return
    const { columns, rows, values, most } = density
    const image = context.createImageData(columns, rows)
    values.forEach((value, cell) => {
      image.data.set(TINT, 4 * cell)
      // Logarithmic: one path of many feet does not hide all others.
      image.data[4 * cell + 3] =
        most > 0 ? (COVER * Math.log1p((50 * value) / most)) / Math.log1p(50) : 0
    })
    context.putImageData(image, 0, 0)
  }, [density])
  return (
    <canvas
      ref={canvas}
      className="density"
      width={density.columns}
      height={density.rows}
      aria-hidden="true"
      style={{
        left: -place.offsetX,
        top: -place.offsetY,
        width: place.width,
        height: place.height
      }}
    />
  )
}
