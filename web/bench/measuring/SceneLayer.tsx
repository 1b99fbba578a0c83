import { sceneLayer as msg } from '../../../core/messages/en/bench/measuring.ts'
import type Konva from 'konva'
import type { ReactNode } from 'react'
import { Group, Label, Line, Path, Rect, Shape, Tag, Text } from '../picture/konva.ts'
import { groundAt, horizon, project, type CameraPose } from '../../../core/scene/camera.ts'
import { densityStripes } from '../../../core/scene/stripes.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { pointOf } from '../picture/geometry.ts'
import { FONT, STAGE, WHITE } from '../picture/shapeParts.tsx'

/** What of a calibrated scene is shown over the picture. */
export interface SceneShown {
  pose: CameraPose
  grid: boolean
  bands: boolean
  /** Where the person figure stands; null: nowhere. */
  figure: Point | null
  metres: number
  /** The picture's own height in pixels, on which densities are counted. */
  pictureHeight: number
  onFigure: (foot: Point) => void
}

const NEAR = 0.5
const FAR = 80

/** A calibrated scene over the picture: horizon, ground grid, bands of pixel density, a figure that keeps its height. */
export function SceneLayer({
  shown,
  width,
  height
}: {
  shown: SceneShown
  width: number
  height: number
}): ReactNode {
  const { pose, grid, bands } = shown
  const level = horizon(pose)
  return (
    <>
      {bands && <Bands {...{ shown, width, height }} />}
      {grid && (
        <>
          <Shape listening={false} sceneFunc={(g) => drawGrid(g._context, pose, width, height)} />
          {level > 0 && level < 1 && (
            <>
              <Line
                points={[0, level * height, width, level * height]}
                stroke={WHITE}
                strokeWidth={1.5}
                dash={[10, 6]}
                listening={false}
              />
              <Text
                text={msg.horizon}
                x={8}
                y={level * height - 16}
                fontSize={12}
                fontFamily={FONT}
                fill={WHITE}
                shadowColor={STAGE}
                shadowBlur={3}
                shadowOpacity={1}
                listening={false}
              />
            </>
          )}
        </>
      )}
      {shown.figure && <Figure {...{ shown, width, height }} foot={shown.figure} />}
    </>
  )
}

/** Lines on the ground, a metre apart near by and five farther away; every fifth stronger. */
function drawGrid(
  context: CanvasRenderingContext2D,
  pose: CameraPose,
  width: number,
  height: number
): void {
  const line = (ax: number, az: number, bx: number, bz: number, strong: boolean): void => {
    // Cut where the ground comes behind the camera.
    const depth = (z: number): number => project(pose, { x: 0, z }).depth
    let [x0, z0] = [ax, az]
    if (depth(z0) < NEAR) {
      if (depth(bz) < NEAR) return
      const t = (NEAR - depth(az)) / (depth(bz) - depth(az))
      ;[x0, z0] = [ax + (bx - ax) * t, az + (bz - az) * t]
    }
    const [a, b] = [project(pose, { x: x0, z: z0 }), project(pose, { x: bx, z: bz })]
    context.globalAlpha = strong ? 0.55 : 0.25
    context.beginPath()
    context.moveTo(a.x * width, a.y * height)
    context.lineTo(b.x * width, b.y * height)
    context.stroke()
  }
  context.save()
  context.strokeStyle = WHITE
  context.lineWidth = 1
  for (let x = -40; x <= 40; x += 1)
    if (x % 5 === 0 || Math.abs(x) <= 10) line(x, 0, x, x % 5 === 0 ? FAR : 20, x % 5 === 0)
  for (let z = 1; z <= FAR; z += 1)
    if (z % 5 === 0 || z <= 20)
      line(z % 5 === 0 ? -40 : -10, z, z % 5 === 0 ? 40 : 10, z, z % 5 === 0)
  context.restore()
}

const shades = {
  identify: 0.05,
  recognise: 0.16,
  observe: 0.28,
  detect: 0.4,
  monitor: 0.52,
  none: 0.64
} as const

function Bands({
  shown: { pose, pictureHeight },
  width,
  height
}: {
  shown: SceneShown
  width: number
  height: number
}): ReactNode {
  return densityStripes(pose, pictureHeight).map(({ band, from, to, least }) => (
    <Group key={from} listening={false}>
      <Rect
        y={from * height}
        width={width}
        height={(to - from) * height}
        fill={STAGE}
        opacity={shades[band ?? 'none']}
      />
      <Line
        points={[0, to * height, width, to * height]}
        stroke={WHITE}
        strokeWidth={1}
        opacity={0.6}
        dash={[3, 5]}
      />
      {(to - from) * height > 16 && (
        <Label x={width - 8} y={to * height - 20} offsetX={196}>
          <Tag fill={STAGE} opacity={0.75} cornerRadius={3} />
          <Text
            text={band ? msg.pxMOrMore(band, least) : msg.under125Px}
            width={196}
            align="right"
            fontSize={12}
            fontFamily={FONT}
            fill={WHITE}
            padding={3}
          />
        </Label>
      )}
    </Group>
  ))
}

const BODY =
  'M50 0a9 9 0 1 1 0 18a9 9 0 1 1 0-18M38 21h24q6 0 6 6v26h-6v47H52V62h-4v38H38V53h-6V27q0-6 6-6Z'

/** A person of so many metres, dragged by the foot. */
function Figure({
  shown: { pose, metres, onFigure },
  foot,
  width,
  height
}: {
  shown: SceneShown
  foot: Point
  width: number
  height: number
}): ReactNode {
  const ground = groundAt(pose, foot[0], foot[1])
  if (!ground) return null
  const head = project(pose, { ...ground, y: metres })
  const [fx, fy] = [foot[0] * width, foot[1] * height]
  const tall = fy - head.y * height
  const drag = (event: Konva.KonvaEventObject<DragEvent>): void => {
    const at = pointOf(event.target.x() / width, event.target.y() / height)
    // The figure stays on the ground: it does not go above the horizon.
    const to: Point = groundAt(pose, at[0], at[1]) ? at : [at[0], foot[1]]
    event.target.position({ x: to[0] * width, y: to[1] * height })
    onFigure(to)
  }
  const distance = Math.hypot(ground.x, ground.z)
  return (
    <Group x={fx} y={fy} draggable onDragMove={drag}>
      <Path
        data={BODY}
        x={(-50 * tall) / 100}
        y={-tall}
        scaleX={tall / 100}
        scaleY={tall / 100}
        fill="#1F6F5C"
        opacity={0.85}
        stroke={WHITE}
        strokeWidth={1.5}
        strokeScaleEnabled={false}
      />
      <Label x={tall * 0.22 + 4} y={-tall} listening={false}>
        <Tag fill={STAGE} opacity={0.8} cornerRadius={3} />
        <Text
          text={msg.mMAway(metres.toFixed(2), distance.toFixed(1))}
          fill={WHITE}
          fontSize={12}
          fontFamily={FONT}
          padding={3}
        />
      </Label>
    </Group>
  )
}
