import { targetBrackets as msg } from '../../../core/messages/en/bench/picture.ts'
import type { ReactNode } from 'react'
import { Group, Label, Line, Path, Rect, Tag, Text } from './konva.ts'
import { heightOf, type CameraPose } from '../../../core/scene/camera.ts'
import { FONT } from './shapeParts.tsx'
import {
  firstRowOfFrame,
  rowAt,
  type TargetRow,
  type Tracks
} from '../../../core/targets/tracks.ts'
import { classes } from '../../../core/messages/en/codes/conditions.ts'

/** The shape of each class, within a square of ten about its middle. */
const glyphs: Record<TargetRow['cls'], string> = {
  person: 'M-4 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0z',
  vehicle: 'M-4 -4h8v8h-8z',
  cycle: 'M0 -5l5 5l-5 5l-5 -5z',
  animal: 'M0 -4.5l5 8.5h-10z',
  unknown: 'M-4 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0zM-2.4 0a2.4 2.4 0 1 1 4.8 0a2.4 2.4 0 1 1 -4.8 0z'
}

export interface Standing {
  /** Whether the selected detection's gates let the target's class through. */
  passes: boolean
  /** A trigger of this target is on show. */
  triggered: boolean
}

export function rowsOfFrame(tracks: Tracks, frame: number): TargetRow[] {
  const rows: TargetRow[] = []
  for (let i = firstRowOfFrame(tracks, frame); i < tracks.length && tracks.frame[i] === frame; i++)
    rows.push(rowAt(tracks, i))
  return rows
}

export interface TargetBracketsProps {
  row: TargetRow
  standing: Standing
  selected: boolean
  /** The calibrated scene; its heights are said in metres. */
  pose: CameraPose | null
  width: number
  height: number
  onSelect: () => void
}

/** Corner brackets about a target; they close up when it triggers, and are slate when a gate stops it. */
export function TargetBrackets({
  row,
  standing,
  selected,
  pose,
  width,
  height,
  onSelect
}: TargetBracketsProps): ReactNode {
  const [x, y, w, h] = [row.x * width, row.y * height, row.w * width, row.h * height]
  const arm = standing.triggered ? Math.max(w, h) : Math.max(5, Math.min(w, h) * 0.3)
  const [ax, ay] = [Math.min(arm, w / 2), Math.min(arm, h / 2)]
  const colour = standing.triggered ? '#E06BAF' : standing.passes ? '#FFFFFF' : '#9AA5B1'
  const corners = [
    [x, y, 1, 1],
    [x + w, y, -1, 1],
    [x, y + h, 1, -1],
    [x + w, y + h, -1, -1]
  ] as const
  const metres = pose && heightOf(pose, row)
  const label = msg.m(
    classes[row.cls],
    row.id,
    metres === null ? null : metres.toFixed(1),
    standing.passes
  )
  const labelX = Math.max(0, Math.min(x, width - (label.length + 5) * 6))
  const labelY = Math.max(0, y - 19)
  return (
    <Group onMouseDown={onSelect}>
      {corners.map(([cx, cy, sx, sy], i) => {
        const points = [cx + sx * ax, cy, cx, cy, cx, cy + sy * ay]
        return (
          <Group key={i} listening={false}>
            <Line points={points} stroke="#11161C" opacity={0.7} strokeWidth={selected ? 5.5 : 4} />
            <Line points={points} stroke={colour} strokeWidth={selected ? 3 : 1.8} />
          </Group>
        )
      })}
      <Rect x={x} y={y} width={w} height={h} fill="transparent" />
      <Label x={labelX} y={labelY} listening={false}>
        <Tag fill="#11161C" opacity={0.78} cornerRadius={3} />
        <Text
          text={`     ${label}`}
          fill={selected ? '#FFFFFF' : '#E4E7EA'}
          fontSize={11}
          fontStyle={selected ? 'bold' : 'normal'}
          fontFamily={FONT}
          padding={3}
        />
      </Label>
      <Path
        data={glyphs[row.cls]}
        x={labelX + 9}
        y={labelY + 9}
        fill={selected ? '#FFFFFF' : '#E4E7EA'}
        listening={false}
      />
    </Group>
  )
}
