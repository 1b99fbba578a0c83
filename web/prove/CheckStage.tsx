import { classes as classNames } from '../../core/messages/en/codes/conditions.ts'
import { shapeOf } from '../../core/kinds/schemas.ts'
import { useMemo, type ReactNode } from 'react'
import type { Detection } from '../../core/formats/plan.ts'
import type { Walk } from '../../core/formats/walk.ts'
import { trueTracks } from '../../simulation/evidence.ts'
import type { Scene } from '../../simulation/script.ts'
import { CLASSES } from '../../core/targets/classes.ts'
import { firstRowOfFrame } from '../../core/targets/tracks.ts'
import { ScenePreview } from '../scene/ScenePreview.tsx'

interface Props {
  scene: Scene
  walk: Walk
  detection: Detection
  time: number
  /** Whose way is shown to be changed; left out: the first one's, only shown. */
  actor?: number | null
  onWay?: (way: Walk['actors'][number]['way']) => void
}

/** A walk at a moment: painted, with the detection's shape and what truly is where. */
export function CheckStage({ scene, walk, detection, time, actor, onWay }: Props): ReactNode {
  const script = useMemo(() => ({ id: 'walk', name: 'walk', ...walk }), [walk])
  const tracks = useMemo(() => trueTracks({ scene, script }), [scene, script])
  const frame = Math.min(
    Math.round(walk.seconds * scene.fps),
    Math.floor(time * scene.fps + 1e-6) + 1
  )
  const rows: number[] = []
  for (let i = firstRowOfFrame(tracks, frame); i < firstRowOfFrame(tracks, frame + 1); i++)
    rows.push(i)
  const { width, height } = scene
  return (
    <ScenePreview
      scene={scene}
      script={script}
      time={time}
      actor={actor === undefined ? (walk.actors.length ? 0 : null) : actor}
      onWay={onWay}
    >
      <Shape detection={detection} width={width} height={height} />
      {rows.map((i) => {
        const [x, y, w, h] = [
          tracks.x[i]! * width,
          tracks.y[i]! * height,
          tracks.w[i]! * width,
          tracks.h[i]! * height
        ]
        const c = Math.min(w, h) * 0.3
        const corners = `M${x} ${y + c}V${y}h${c}M${x + w - c} ${y}h${c}v${c}M${x + w} ${y + h - c}v${c}h${-c}M${x + c} ${y + h}h${-c}v${-c}`
        return (
          <g key={i} className="check-target">
            <path d={corners} className="halo" />
            <path d={corners} />
            <text x={x + w / 2} y={y - 5}>
              {classNames[CLASSES[tracks.cls[i]!]!]}
            </text>
          </g>
        )
      })}
    </ScenePreview>
  )
}

function Shape({
  detection: d,
  width,
  height
}: {
  detection: Detection
  width: number
  height: number
}): ReactNode {
  const points = shapeOf(d)
  if (!points) return null
  const flat = points.map(([x, y]) => `${x * width},${y * height}`).join(' ')
  return 'zone' in d ? (
    <g className="check-shape">
      <polygon points={flat} className="halo" />
      <polygon points={flat} />
    </g>
  ) : (
    <g className="check-shape">
      <polyline points={flat} className="halo" />
      <polyline points={flat} />
    </g>
  )
}
