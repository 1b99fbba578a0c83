import { project, type GroundPoint, type Projected } from '../../core/scene/camera.ts'
import { turned, type View } from '../world.ts'

/** The part of a canvas context that is used; a browser's and the server's both have it. */
export type Painter2D = Pick<
  CanvasRenderingContext2D,
  | 'fillStyle'
  | 'strokeStyle'
  | 'lineWidth'
  | 'lineCap'
  | 'lineJoin'
  | 'globalAlpha'
  | 'globalCompositeOperation'
  | 'save'
  | 'restore'
  | 'translate'
  | 'scale'
  | 'beginPath'
  | 'moveTo'
  | 'lineTo'
  | 'quadraticCurveTo'
  | 'closePath'
  | 'fill'
  | 'stroke'
  | 'ellipse'
  | 'fillRect'
  | 'createLinearGradient'
  | 'createRadialGradient'
  | 'drawImage'
  | 'getImageData'
  | 'putImageData'
>

export interface Canvas {
  width: number
  height: number
  getContext(kind: '2d'): unknown
}

/** Makes a canvas: `document.createElement` in a browser, a canvas package on the server. */
export type MakeCanvas = (width: number, height: number) => Canvas

export const contextOf = (canvas: Canvas): Painter2D => canvas.getContext('2d') as Painter2D

/** A picture that is being painted: the context, its size in pixels, and where the camera looks. */
export interface Sheet {
  g: Painter2D
  width: number
  height: number
  view: View
}

/** A place of the world on the sheet, in pixels; `perMetre` in pixels as well. */
export function see({ width, height, view }: Sheet, point: GroundPoint): Projected {
  const p = project(view, turned(view, point))
  return { x: p.x * width, y: p.y * height, depth: p.depth, perMetre: p.perMetre * height }
}

/** Nearer than this, in metres, nothing is painted. */
export const NEAREST = 0.3

/**
 * A flat face in the world, filled. What of it is behind the camera is cut off (Sutherland and Hodgman 1974, against
 * the one plane).
 */
export function fillFace(
  sheet: Sheet,
  colour: Painter2D['fillStyle'],
  corners: readonly GroundPoint[]
): void {
  const { g, view } = sheet
  const tilt = (view.tilt * Math.PI) / 180
  const ahead = corners.map((corner) => {
    const p = turned(view, corner)
    return { p: corner, depth: (view.height - p.y) * Math.sin(tilt) + p.z * Math.cos(tilt) }
  })
  const cut: GroundPoint[] = []
  ahead.forEach((a, i) => {
    const b = ahead[(i + 1) % ahead.length]!
    if (a.depth >= NEAREST) cut.push(a.p)
    if (a.depth >= NEAREST !== b.depth >= NEAREST) {
      const t = (NEAREST - a.depth) / (b.depth - a.depth)
      cut.push({
        x: a.p.x + (b.p.x - a.p.x) * t,
        y: (a.p.y ?? 0) + ((b.p.y ?? 0) - (a.p.y ?? 0)) * t,
        z: a.p.z + (b.p.z - a.p.z) * t
      })
    }
  })
  if (cut.length < 3) return
  g.fillStyle = colour
  g.beginPath()
  cut.forEach((corner, i) => {
    const { x, y } = see(sheet, corner)
    if (i) g.lineTo(x, y)
    else g.moveTo(x, y)
  })
  g.closePath()
  g.fill()
}

/** A colour made lighter (factor above 1) or darker. */
export function shaded(colour: string, factor: number): string {
  const channel = (at: number): string =>
    Math.min(255, Math.round(parseInt(colour.slice(at, at + 2), 16) * factor))
      .toString(16)
      .padStart(2, '0')
  return `#${channel(1)}${channel(3)}${channel(5)}`
}
