import { classes as classNames } from '../../core/messages/en/codes/conditions.ts'
import { liveTile as msg } from '../../core/messages/en/scene.ts'
import { shapeOf } from '../../core/kinds/schemas.ts'
import './liveTile.css'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import type { Detection } from '../../core/formats/plan.ts'
import type { Live, WatchStream } from './liveStream.ts'
import { Flag } from '../words/signs.tsx'

interface Props {
  stream: WatchStream
  camera: string
  name: string
  detections: readonly Detection[]
  /** Detections that no device holds. */
  unheld: readonly string[]
  /** Detections whose alarm waits. */
  alarmed: ReadonlySet<string>
  chosen: boolean
  large: boolean
  onChoose: () => void
}

/** A picture that is older than this is said to stand still. */
const STALE_MS = 3000

/** @param began when somebody began to look, ms */
function deviceErrorOf({ picture, trouble, at }: Live, began: number): string | null {
  if (trouble) return trouble
  const age = Date.now() - Math.max(at, began)
  if (age <= STALE_MS) return null
  return picture ? msg.noNewPictureForS(Math.floor(age / 1000)) : msg.noPictureYet
}

/** A camera's live picture with its shapes and targets; drawn as it comes, without React. */
export function LiveTile({
  stream,
  camera,
  name,
  detections,
  unheld,
  alarmed,
  chosen,
  large,
  onChoose
}: Props): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const [size, setSize] = useState({ width: 640, height: 360 })
  useEffect(() => {
    let asked = 0
    const began = Date.now()
    const draw = (): void => {
      asked = 0
      const { picture, targets } = stream.get(camera)
      const to = canvas.current
      const g = to?.getContext('2d')
      if (!to || !g || !picture) return
      if (to.width !== picture.width || to.height !== picture.height) {
        ;[to.width, to.height] = [picture.width, picture.height]
        setSize({ width: picture.width, height: picture.height })
      }
      g.drawImage(picture, 0, 0)
      for (const { x, y, w, h, class: cls } of targets)
        bracket(g, x * to.width, y * to.height, w * to.width, h * to.height, nameOf(cls))
    }
    const heard = (): void => {
      setTrouble(deviceErrorOf(stream.get(camera), began))
      asked ||= requestAnimationFrame(draw)
    }
    heard()
    const end = stream.subscribe(camera, heard)
    const look = setInterval(() => setTrouble(deviceErrorOf(stream.get(camera), began)), 1000)
    return () => {
      clearInterval(look)
      end()
      cancelAnimationFrame(asked)
    }
  }, [stream, camera])
  const unheldHere = detections.filter(({ id }) => unheld.includes(id)).length
  return (
    <button
      type="button"
      className={`live-tile${large ? ' large' : ''}${chosen ? ' chosen' : ''}${alarmed.size ? ' alarmed' : ''}`}
      aria-pressed={chosen}
      onClick={onChoose}
    >
      <canvas ref={canvas} width={640} height={360} />
      <svg viewBox={`0 0 ${size.width} ${size.height}`} aria-hidden="true">
        {detections.map((d) => {
          const points = shapeOf(d)
          if (!points) return null
          const flat = points.map(([x, y]) => `${x * size.width},${y * size.height}`).join(' ')
          const Shape = 'zone' in d ? 'polygon' : 'polyline'
          return (
            <g
              key={d.id}
              className={`${alarmed.has(d.id) ? 'is-alarmed' : ''}${unheld.includes(d.id) ? ' is-unheld' : ''}`}
            >
              <Shape points={flat} className="halo" />
              <Shape points={flat} />
            </g>
          )
        })}
      </svg>
      <span className="tile-name">
        {alarmed.size > 0 && <Flag />}
        {name}
        {alarmed.size > 0 && <span className="notch-words"> {msg.activeAlarm}</span>}
        {unheldHere > 0 && !trouble && (
          <small className="tile-unheld"> {msg.notOnDevice(unheldHere)}</small>
        )}
      </span>
      {trouble && <span className="tile-trouble">{trouble}</span>}
    </button>
  )
}

/** A device may report a class that is none of ours. */
const nameOf = (cls: string): string => (classNames as Partial<Record<string, string>>)[cls] ?? cls

/** Corners around a target, with its class. */
function bracket(
  g: CanvasRenderingContext2D,
  x: number,
  y: number,
  w: number,
  h: number,
  cls: string
): void {
  const c = Math.min(w, h) * 0.3
  const path = new Path2D(
    `M${x} ${y + c}V${y}h${c}M${x + w - c} ${y}h${c}v${c}M${x + w} ${y + h - c}v${c}h${-c}M${x + c} ${y + h}h${-c}v${-c}`
  )
  g.strokeStyle = 'rgb(17 22 28 / 70%)'
  g.lineWidth = 4
  g.stroke(path)
  g.strokeStyle = '#fff'
  g.lineWidth = 1.8
  g.stroke(path)
  g.font = '13px sans-serif'
  g.textAlign = 'center'
  g.lineWidth = 3
  g.strokeStyle = 'rgb(17 22 28 / 80%)'
  g.strokeText(cls, x + w / 2, y - 4)
  g.fillStyle = '#fff'
  g.fillText(cls, x + w / 2, y - 4)
}
