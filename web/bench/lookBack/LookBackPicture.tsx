import { lookBack as msg } from '../../../core/messages/en/bench/lookBack.ts'
import './lookBack.css'
import { useEffect, useState, useSyncExternalStore, type ReactNode } from 'react'
import { pictureNear } from '../../../core/lookBack/pictures.ts'
import { dateAndSecond } from '../../../core/messages/format.ts'
import { atSite } from '../../api/here.ts'
import { useContents } from '../contexts.ts'
import { DensityLayer, type DensityChoice } from './DensityLayer.tsx'
import { AtMoment, type PictureProps } from '../picture/Picture.tsx'
import { Fitted } from '../picture/Fitted.tsx'
import type { Playhead } from '../playhead.ts'
import { pictureAt, usePictures } from './useLookBack.ts'

/** A picture of one clear point. */
const NOTHING = 'data:image/gif;base64,R0lGODlhAQABAAAAACH5BAEKAAEALAAAAAABAAEAAAICTAEAOw=='

/**
 * What the camera reported at a moment of the past, over the picture that was kept nearest to it; where none was, over its
 * picture of now, or of a clip.
 */
export function LookBackPicture({
  still,
  density,
  ...props
}: PictureProps & {
  /** What is laid over the picture; null: nothing. */
  density: DensityChoice | null
  /** Where the picture of now is; null: there is none. */
  still: string | null
}): ReactNode {
  const { clip, playhead, shapes } = props
  const { timeZone } = useContents().view.site
  const [size, setSize] = useState({ width: clip.width, height: clip.height })
  useEffect(() => {
    playhead.attach(null)
    playhead.setClip(clip.frames / clip.fps, clip.fps)
    return () => playhead.pause()
  }, [playhead, clip.id, clip.frames, clip.fps])
  const pictures = usePictures(clip)
  const near = useSyncExternalStore(playhead.subscribe, () =>
    clip.start === null ? null : pictureNear(pictures, clip.start + 1000 * playhead.time)
  )
  const when = near === null ? null : dateAndSecond(near, timeZone)
  const source = near === null ? still : pictureAt(clip.camera, near)
  return (
    <>
      <Fitted
        {...size}
        zoom={shapes.zoom}
        media={
          <img
            src={source === null ? NOTHING : atSite(source)}
            alt={source === null ? '' : when === null ? msg.picture : msg.pictureThen(when)}
            onLoad={({ currentTarget: { naturalWidth: width, naturalHeight: height } }) =>
              source !== null &&
              width &&
              (width !== size.width || height !== size.height) &&
              setSize({ width, height })
            }
          />
        }
      >
        {(place) => (
          <>
            {density && props.tracks && (
              <DensityLayer tracks={props.tracks} choice={density} place={place} />
            )}
            <AtMoment {...props} place={place} />
          </>
        )}
      </Fitted>
      <p className="look-back-hint">
        {near !== null && clip.start !== null ? (
          <PictureOf at={near} start={clip.start} playhead={playhead} timeZone={timeZone} />
        ) : still !== null ? (
          msg.pictureOfNow
        ) : (
          msg.noPicture
        )}
      </p>
    </>
  )
}

/** When the picture was taken, and how far that is from the moment on show. */
function PictureOf({
  at,
  start,
  playhead,
  timeZone
}: {
  at: number
  start: number
  playhead: Playhead
  timeZone: string
}): ReactNode {
  const later = useSyncExternalStore(playhead.subscribe, () =>
    Math.round((at - start) / 1000 - playhead.time)
  )
  return msg.pictureOf(dateAndSecond(at, timeZone), later)
}
