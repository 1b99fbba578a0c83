import { fitted as msg } from '../../../core/messages/en/bench/picture.ts'
import './picture.css'
import '../bench.css'
import {
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  useSyncExternalStore,
  type ReactNode
} from 'react'
import type { View, Zoom } from './zoom.ts'

/** The part of the picture on show, in pixels of the screen. */
export interface Frame {
  /** The whole picture's size at this zoom, and how much of it is to the left of and above what is on show. */
  width: number
  height: number
  offsetX: number
  offsetY: number
  /** What there is room for. */
  roomWidth: number
  roomHeight: number
}

const WHEEL = 0.0016

/**
 * A picture as large as there is room, with what is drawn over it; the wheel goes nearer, the
 * middle button moves it.
 */
export function Fitted({
  width: ownWidth,
  height: ownHeight,
  zoom,
  media,
  children
}: {
  width: number
  height: number
  zoom: Zoom
  media: ReactNode
  children: (frame: Frame) => ReactNode
}): ReactNode {
  const room = useRef<HTMLDivElement>(null)
  const picture = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState({ width: 0, height: 0 })
  const view = useSyncExternalStore(zoom.subscribe, zoom.get)
  useLayoutEffect(() => {
    const element = room.current
    if (!element) return
    const measure = (): void =>
      setSize({ width: element.clientWidth, height: element.clientHeight })
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  usePointerZoom(picture, zoom)
  const scale = Math.min(size.width / ownWidth, size.height / ownHeight)
  const width = Math.floor(ownWidth * scale)
  const height = Math.floor(ownHeight * scale)
  return (
    <div className="picture-room" ref={room}>
      <div className="picture" ref={picture} style={{ width, height }}>
        <div
          className="picture-media"
          style={
            view.zoom === 1
              ? undefined
              : {
                  transform: `scale(${view.zoom}) translate(${-view.left * 100}%, ${-view.top * 100}%)`
                }
          }
        >
          {media}
        </div>
        {width > 0 && children(frameOf(view, width, height))}
        {view.zoom > 1 && (
          <button type="button" className="zoom-note" onClick={() => zoom.whole()}>
            {view.zoom.toFixed(1)} × <kbd>0</kbd> {msg.wholePicture}
          </button>
        )}
      </div>
    </div>
  )
}

const frameOf = ({ zoom, left, top }: View, width: number, height: number): Frame => ({
  width: width * zoom,
  height: height * zoom,
  offsetX: left * width * zoom,
  offsetY: top * height * zoom,
  roomWidth: width,
  roomHeight: height
})

/** Listeners of the element's own, as React's cannot keep the page from scrolling. */
function usePointerZoom(picture: React.RefObject<HTMLDivElement | null>, zoom: Zoom): void {
  useEffect(() => {
    const element = picture.current
    if (!element) return
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault()
      const box = element.getBoundingClientRect()
      const { zoom: now, left, top } = zoom.get()
      zoom.by(Math.exp(-event.deltaY * WHEEL), [
        left + (event.clientX - box.left) / box.width / now,
        top + (event.clientY - box.top) / box.height / now
      ])
    }
    let from: { x: number; y: number } | null = null
    const onDown = (event: PointerEvent): void => {
      if (event.button !== 1 || zoom.get().zoom === 1) return
      event.preventDefault()
      from = { x: event.clientX, y: event.clientY }
      element.setPointerCapture(event.pointerId)
    }
    const onMove = (event: PointerEvent): void => {
      if (!from) return
      const box = element.getBoundingClientRect()
      const { zoom: now } = zoom.get()
      zoom.pan(
        (from.x - event.clientX) / box.width / now,
        (from.y - event.clientY) / box.height / now
      )
      from = { x: event.clientX, y: event.clientY }
    }
    const onUp = (): void => void (from = null)
    element.addEventListener('wheel', onWheel, { passive: false })
    element.addEventListener('pointerdown', onDown)
    element.addEventListener('pointermove', onMove)
    element.addEventListener('pointerup', onUp)
    return () => {
      element.removeEventListener('wheel', onWheel)
      element.removeEventListener('pointerdown', onDown)
      element.removeEventListener('pointermove', onMove)
      element.removeEventListener('pointerup', onUp)
    }
  }, [picture, zoom])
}
