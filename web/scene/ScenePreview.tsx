import { scenePreview as msg } from '../../core/messages/en/scene.ts'
import './scene.css'
import {
  useEffect,
  useMemo,
  useRef,
  type MouseEvent,
  type PointerEvent,
  type ReactNode
} from 'react'
import { groundAt, project } from '../../core/scene/camera.ts'
import { Painter } from '../../simulation/paint/painter.ts'
import type { Scene, Script, ScriptActor } from '../../simulation/script.ts'
import { aspectOf } from '../../simulation/world.ts'

type Way = ScriptActor['way']

const makeCanvas = (width: number, height: number): HTMLCanvasElement =>
  Object.assign(document.createElement('canvas'), { width, height })

/** The scene at a moment of a script, painted as the clip will be; over it the way of one actor, to be changed. */
interface Props {
  scene: Scene
  script: Script
  time: number
  /** Whose way is shown; null: nobody's. */
  actor: number | null
  /** Left out: the way is only shown. */
  onWay?: (way: Way) => void
  /** Drawn over it, in pixels of the scene. */
  children?: ReactNode
}

export function ScenePreview({ scene, script, time, actor, onWay, children }: Props): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null)
  const dragged = useRef<number | null>(null)
  const painter = useMemo(() => new Painter({ scene, script }, makeCanvas), [scene, script])
  useEffect(() => {
    painter.paint(time)
    canvas.current?.getContext('2d')?.drawImage(painter.canvas as HTMLCanvasElement, 0, 0)
  }, [painter, time])

  const pose = { ...scene.camera, aspect: aspectOf(scene) }
  const way = actor === null ? null : (script.actors[actor]?.way ?? null)
  const points = way?.map(([x, z]) => project(pose, { x, z })) ?? []
  const groundOf = (event: MouseEvent): [number, number] | null => {
    const box = canvas.current!.getBoundingClientRect()
    const ground = groundAt(
      pose,
      (event.clientX - box.left) / box.width,
      (event.clientY - box.top) / box.height
    )
    if (!ground || ground.z > 120) return null
    return [Math.round(ground.x * 10) / 10, Math.round(ground.z * 10) / 10]
  }
  const add = (event: MouseEvent): void => {
    const at = groundOf(event)
    if (way && at && dragged.current === null) onWay?.([...way, at])
  }
  const drag = (event: PointerEvent): void => {
    const index = dragged.current
    const at = index !== null && groundOf(event)
    if (way && index !== null && at)
      onWay?.(way.map((p, i) => (i === index ? ([...at, ...p.slice(2)] as Way[number]) : p)))
  }
  const flat = points.map((p) => `${p.x * scene.width},${p.y * scene.height}`).join(' ')
  return (
    <div
      className="scene-preview"
      onPointerMove={drag}
      onPointerUp={() => setTimeout(() => (dragged.current = null))}
    >
      <canvas
        ref={canvas}
        width={scene.width}
        height={scene.height}
        role="img"
        aria-label={msg.atS(scene.name, time.toFixed(1))}
        onClick={add}
      />
      <svg viewBox={`0 0 ${scene.width} ${scene.height}`} aria-hidden="true">
        <polyline points={flat} className="way-halo" />
        <polyline points={flat} className="way" />
        {points.map((p, i) => (
          <g
            key={i}
            transform={`translate(${p.x * scene.width} ${p.y * scene.height})`}
            onPointerDown={() => onWay && (dragged.current = i)}
            onDoubleClick={() => way && way.length > 2 && onWay?.(way.filter((_, k) => k !== i))}
          >
            <circle r="7" />
            <text y="3.5">{i + 1}</text>
          </g>
        ))}
        {children}
      </svg>
    </div>
  )
}
