import { lookBack as msg } from '../../../core/messages/en/bench/lookBack.ts'
import './lookBack.css'
import type { ReactNode } from 'react'
import { pictureOfVisit, visitAt } from '../../../core/lookBack/pictures.ts'
import { dateAndSecond } from '../../../core/messages/format.ts'
import type { ClipView } from '../../../core/api.ts'
import { frameTime, type Tracks } from '../../../core/targets/tracks.ts'
import { atSite } from '../../api/here.ts'
import { useContents, useOnShow } from '../contexts.ts'
import { pictureAt, usePictures } from './useLookBack.ts'

/** The picture that was kept of a target's visit, with the target marked; it leads to its moment. */
export function SeenThen({ target, time }: { target: number; time: number }): ReactNode {
  const { clip, tracks } = useOnShow()
  return clip?.start != null && tracks ? (
    <Seen {...{ target, time, tracks, clip, start: clip.start }} />
  ) : null
}

function Seen({
  clip,
  start,
  tracks,
  target,
  time
}: {
  clip: ClipView
  start: number
  tracks: Tracks
  target: number
  /** Seconds from the start; of the visits of this number it tells which. */
  time: number
}): ReactNode {
  const { spans, playhead } = useOnShow()
  const { timeZone } = useContents().view.site
  const pictures = usePictures(clip)
  const visit = visitAt(spans, target, time)
  const found = visit && pictureOfVisit(tracks, start, visit, pictures)
  if (!found) return null
  const { at, row } = found
  const when = dateAndSecond(at, timeZone)
  const percent = (share: number): string => `${100 * share}%`
  return (
    <button
      type="button"
      className="seen-then"
      onClick={() => playhead.seek(frameTime(tracks.frame[row]!, tracks.fps))}
    >
      <span className="seen-then-picture">
        <img src={atSite(pictureAt(clip.camera, at))} alt="" />
        <i
          style={{
            left: percent(tracks.x[row]!),
            top: percent(tracks.y[row]!),
            width: percent(tracks.w[row]!),
            height: percent(tracks.h[row]!)
          }}
        />
      </span>
      <span className="quiet">{msg.seen(when)}</span>
    </button>
  )
}
