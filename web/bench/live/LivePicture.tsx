import { atSite } from '../../api/here.ts'
import { livePicture as msg } from '../../../core/messages/en/bench/live.ts'
import '../bench.css'
import { useEffect, useMemo, useState, useSyncExternalStore, type ReactNode } from 'react'
import type { LiveFrame } from '../../../core/devices/views.ts'
import { classNamed } from '../../../core/targets/classes.ts'
import type { TargetRow } from '../../../core/targets/tracks.ts'
import { Fitted } from '../picture/Fitted.tsx'
import { Overlay, type PictureShapes } from '../picture/Overlay.tsx'
import type { Heard, LiveFrames } from './useLive.ts'

const NOTHING_TIMED: ReadonlyMap<string, number> = new Map()

/** After so long a picture that failed is asked for again. */
const AGAIN_MS = 3000
/** How long a trigger stays on show. */
const SHOWN_MS = 2000

const rowsOf = (frame: LiveFrame | null): TargetRow[] =>
  (frame?.targets ?? []).map((t) => ({
    frame: 1,
    confidence: 1,
    ...t,
    cls: classNamed(t.class)
  }))

/** What the camera shows now, with the shapes, its targets and what its device says of them. */
export function LivePicture({
  camera,
  heard,
  frames,
  trouble,
  shapes
}: {
  camera: string
  heard: readonly Heard[]
  frames: LiveFrames
  trouble: string | null
  shapes: PictureShapes
}): ReactNode {
  const [size, setSize] = useState({ width: 16, height: 9 })
  const newest = heard[0]?.at ?? 0
  /** What was heard up to then is shown no more. */
  const [past, setPast] = useState(0)
  useEffect(() => {
    const timer = setTimeout(() => setPast(newest), SHOWN_MS)
    return () => clearTimeout(timer)
  }, [newest])
  // A stream that cannot be had, or breaks off, is asked for again.
  const [again, setAgain] = useState(0)
  const [failed, setFailed] = useState(false)
  useEffect(() => {
    if (!failed) return
    const timer = setTimeout(() => {
      setFailed(false)
      setAgain((n) => n + 1)
    }, AGAIN_MS)
    return () => clearTimeout(timer)
  }, [failed])
  const frame = useSyncExternalStore(frames.subscribe, frames.get)
  const rows = useMemo(() => rowsOf(frame), [frame])
  const shown = heard
    .filter(({ at }) => at > past && newest - at < SHOWN_MS)
    .map(({ rule, data }) => ({
      detection: rule,
      ...(data.ObjectId && { target: Number(data.ObjectId) })
    }))
  return (
    <>
      <Fitted
        {...size}
        zoom={shapes.zoom}
        media={
          <img
            key={again}
            src={atSite(`/cameras/${encodeURIComponent(camera)}/live.mjpg?again=${again}`)}
            onError={() => setFailed(true)}
            alt={msg.livePicture}
            onLoad={({ currentTarget: { naturalWidth: width, naturalHeight: height } }) =>
              width &&
              (width !== size.width || height !== size.height) &&
              setSize({ width, height })
            }
          />
        }
      >
        {(place) => (
          <Overlay
            shapes={shapes}
            place={place}
            frame={1}
            rows={rows}
            shown={shown}
            dwelling={NOTHING_TIMED}
            measures={null}
          />
        )}
      </Fitted>
      {(trouble ?? (failed ? msg.noPicture : null)) && (
        <p className="drawing-hint">{trouble ?? msg.noPicture}</p>
      )}
    </>
  )
}
