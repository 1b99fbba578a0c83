import { atSite } from '../../api/here.ts'
import { picture as msg } from '../../../core/messages/en/bench/picture.ts'
import { useEffect, useMemo, useRef, type ReactNode } from 'react'
import type { Trigger } from '../../../core/detections/index.ts'
import type { ClipView } from '../../../core/api.ts'
import type { Measures } from '../../../core/measures/measures.ts'
import type { TimedStay } from '../../../core/tuning/stays.ts'
import { frameTime, type Tracks } from '../../../core/targets/tracks.ts'
import { useFrame, type Playhead } from '../playhead.ts'
import { Fitted, type Frame } from './Fitted.tsx'
import { Overlay, type PictureShapes } from './Overlay.tsx'
import { rowsOfFrame } from './TargetBrackets.tsx'

export interface PictureProps {
  shapes: PictureShapes
  clip: ClipView
  tracks: Tracks | null
  measures: Measures | null
  playhead: Playhead
  triggers: Trigger[]
  /** When targets are being timed, by detection. */
  timed: ReadonlyMap<string, readonly TimedStay[]>
}

/** How long a trigger stays on show, in seconds of the clip. */
const SHOWN_SECONDS = 0.8

/** The clip's picture with the shapes and the targets over it. */
export function Picture({
  clip,
  tracks,
  measures,
  playhead,
  triggers,
  timed,
  shapes
}: PictureProps): ReactNode {
  const video = useRef<HTMLVideoElement>(null)
  useEffect(() => {
    playhead.attach(video.current)
    playhead.setClip(clip.frames / clip.fps, clip.fps)
    return () => playhead.attach(null)
  }, [playhead, clip.id, clip.frames, clip.fps])
  return (
    <Fitted
      width={clip.width}
      height={clip.height}
      zoom={shapes.zoom}
      media={
        <video
          key={clip.id}
          ref={video}
          src={atSite(`/clips/${clip.id}/video`)}
          muted
          playsInline
          preload="auto"
          tabIndex={-1}
          aria-label={msg.clip(clip.name)}
        />
      }
    >
      {(place) => (
        <AtMoment {...{ shapes, clip, tracks, measures, playhead, triggers, timed, place }} />
      )}
    </Fitted>
  )
}

/** What there is at the moment on show; only this is drawn again while a clip plays. */
export function AtMoment({
  clip,
  tracks,
  playhead,
  triggers,
  timed,
  ...rest
}: PictureProps & { place: Frame }): ReactNode {
  const frame = useFrame(playhead, clip.fps)
  const rows = useMemo(() => (tracks ? rowsOfFrame(tracks, frame) : []), [tracks, frame])
  const shown = triggers.filter(
    (t) => t.frame <= frame && frame - t.frame < SHOWN_SECONDS * clip.fps
  )
  const time = frameTime(frame, clip.fps)
  const dwelling = useMemo(() => {
    const shares = new Map<string, number>()
    for (const [detection, stays] of timed)
      for (const { from, filled, to } of stays)
        if (time >= from - 1e-6 && time <= to + 1e-6)
          shares.set(
            detection,
            Math.max(
              shares.get(detection) ?? 0,
              Math.min(1, (time - from) / Math.max(filled - from, 1e-6))
            )
          )
    return shares
  }, [timed, time])
  return (
    <Overlay
      {...rest}
      frame={frame}
      rows={rows}
      shown={shown}
      dwelling={dwelling}
      faces={tracks?.faces}
    />
  )
}
