import { handoverPlace as msg } from '../../core/messages/en/handover.ts'
import { Button } from 'antd'
import { useRef, useState, type PointerEvent, type ReactNode } from 'react'

export type Strokes = [number, number][][]

/** The frame is three times as wide as high; strokes are shares of it. */
const [WIDTH, HEIGHT] = [300, 100]
/** Points that are closer than this to the last one say nothing, shares of the width. */
const NEAR = 0.004

const path = (stroke: readonly [number, number][]): string =>
  stroke.map(([x, y], i) => `${i ? 'L' : 'M'}${x * WIDTH} ${y * HEIGHT}`).join('') +
  // A dot is a line too short to be seen without this.
  (stroke.length === 1 ? 'h.5' : '')

const clamp = (share: number): number => Math.min(1, Math.max(0, Math.round(share * 1e4) / 1e4))

/** Somebody signs with a finger, a pen or the mouse. */
export function SignaturePad({
  strokes,
  onChange
}: {
  strokes: Strokes
  onChange: (strokes: Strokes) => void
}): ReactNode {
  const frame = useRef<SVGSVGElement>(null)
  const [drawing, setDrawing] = useState<[number, number][] | null>(null)
  const pointOf = ({ clientX, clientY }: PointerEvent): [number, number] => {
    const { left, top, width, height } = frame.current!.getBoundingClientRect()
    return [clamp((clientX - left) / width), clamp((clientY - top) / height)]
  }
  const end = (): void => {
    if (drawing) onChange([...strokes, drawing])
    setDrawing(null)
  }
  return (
    <div className="signature-pad">
      <svg
        ref={frame}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={msg.draw}
        onPointerDown={(event) => {
          if (event.button !== 0) return
          event.preventDefault()
          frame.current!.setPointerCapture(event.pointerId)
          setDrawing([pointOf(event)])
        }}
        onPointerMove={(event) => {
          if (!drawing) return
          const point = pointOf(event)
          const last = drawing.at(-1)!
          if (Math.hypot(point[0] - last[0], (point[1] - last[1]) / 3) < NEAR) return
          setDrawing([...drawing, point])
        }}
        onPointerUp={end}
        onPointerCancel={end}
      >
        <path className="signature-line" d={`M14 ${HEIGHT - 22}H${WIDTH - 14}`} />
        {[...strokes, ...(drawing ? [drawing] : [])].map((stroke, i) => (
          <path key={i} d={path(stroke)} />
        ))}
      </svg>
      <div className="row">
        <span className="quiet">{msg.drawHelp}</span>
        <span className="grow" />
        <Button size="small" disabled={!strokes.length} onClick={() => onChange([])}>
          {msg.clear}
        </Button>
      </div>
    </div>
  )
}

/** A signature as it was drawn. */
export const SignatureDrawn = ({ strokes }: { strokes: Strokes }): ReactNode => (
  <svg className="signature-drawn" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden="true">
    {strokes.map((stroke, i) => (
      <path key={i} d={path(stroke)} />
    ))}
  </svg>
)
