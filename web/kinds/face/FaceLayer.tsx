import { faceLayer as msg } from '../../../core/messages/en/kinds/face.ts'
import type Konva from 'konva'
import type { ReactNode } from 'react'
import { Circle, Group, Label, Rect, Tag, Text } from '../../bench/picture/konva.ts'
import { FONT } from '../../bench/picture/shapeParts.tsx'
import type { FaceDetection } from '../../../core/formats/plan.ts'
import { faceKey, type Faces } from '../../../core/targets/faces.ts'
import type { TargetRow } from '../../../core/targets/tracks.ts'

/** The faces of this frame, and the smallest face frame, whose corner can be dragged. */
export function FaceLayer({
  detection,
  rows,
  faces,
  width,
  height,
  onShow,
  onSettle
}: {
  detection: FaceDetection
  rows: readonly TargetRow[]
  faces: Faces | undefined
  width: number
  height: number
  onShow: (d: FaceDetection) => void
  onSettle: () => void
}): ReactNode {
  const { w, h } = detection.faceMin
  // The frame stands in the picture's lower right, where it hides least.
  const [left, top] = [width * 0.94 - w * width, height * 0.9 - h * height]
  const drag = (event: Konva.KonvaEventObject<DragEvent>): void => {
    const round = (v: number): number => Math.round(Math.min(0.9, Math.max(0.005, v)) * 1000) / 1000
    const faceMin = {
      w: round((width * 0.94 - event.target.x()) / width),
      h: round((height * 0.9 - event.target.y()) / height)
    }
    event.target.position({
      x: width * 0.94 - faceMin.w * width,
      y: height * 0.9 - faceMin.h * height
    })
    onShow({ ...detection, faceMin })
  }
  return (
    <>
      {rows.map((row) => {
        const face = faces?.get(faceKey(row.frame, row.id))
        if (!face) return null
        const large = face.w >= w && face.h >= h
        const text = `${face.mask === null ? msg.face : face.mask ? msg.mask : msg.noMask}${face.name ? `, ${face.name}` : ''}`
        return (
          <Group key={row.id} listening={false}>
            <Rect
              x={face.x * width}
              y={face.y * height}
              width={face.w * width}
              height={face.h * height}
              stroke={large ? '#FFFFFF' : '#AEB7C2'}
              strokeWidth={2}
              dash={large ? undefined : [4, 3]}
              cornerRadius={face.w * width * 0.4}
            />
            <Label x={(face.x + face.w) * width + 4} y={face.y * height - 2}>
              <Tag fill="#11161C" opacity={0.8} cornerRadius={3} />
              <Text
                text={large ? text : msg.tooSmall(text)}
                fill="#FFFFFF"
                fontSize={12}
                fontFamily={FONT}
                padding={3}
              />
            </Label>
          </Group>
        )
      })}
      <Rect
        x={left}
        y={top}
        width={w * width}
        height={h * height}
        stroke="#11161C"
        strokeWidth={4}
        opacity={0.6}
        listening={false}
      />
      <Rect
        x={left}
        y={top}
        width={w * width}
        height={h * height}
        stroke="#FFFFFF"
        strokeWidth={2}
        dash={[6, 4]}
        listening={false}
      />
      <Text
        text={msg.smallestFace}
        x={width * 0.94 - 90}
        y={height * 0.9 + 4}
        width={90}
        align="right"
        fontSize={12}
        fontFamily={FONT}
        fill="#FFFFFF"
        shadowColor="#11161C"
        shadowBlur={3}
        listening={false}
      />
      <Circle
        x={left}
        y={top}
        radius={6.5}
        hitStrokeWidth={16}
        fill="#1F6F5C"
        stroke="#FFFFFF"
        strokeWidth={2}
        draggable
        onDragMove={drag}
        onDragEnd={onSettle}
      />
    </>
  )
}
