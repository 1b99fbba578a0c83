import { lookBack as msg } from '../../../core/messages/en/bench/lookBack.ts'
import './lookBack.css'
import { useEffect, useState, type ReactNode } from 'react'
import { atSite } from '../../api/here.ts'
import { DensityLayer, type DensityChoice } from './DensityLayer.tsx'
import { AtMoment, type PictureProps } from '../picture/Picture.tsx'
import { Fitted } from '../picture/Fitted.tsx'

/** A picture of one clear point. */
const NOTHING = 'data:image/gif;base64,R0lGODlhAQABAAAAACH5BAEKAAEALAAAAAABAAEAAAICTAEAOw=='

/** What the camera reported at a moment of the past, over its picture of now, or of its clip where no device shows it. */
export function LookBackPicture({
  still,
  density,
  ...props
}: PictureProps & {
  /** What is laid over the picture; null: nothing. */
  density: DensityChoice | null
  /** Where the picture is; null: there is none. */
  still: string | null
}): ReactNode {
  const { clip, playhead, shapes } = props
  const [size, setSize] = useState({ width: clip.width, height: clip.height })
  useEffect(() => {
    playhead.attach(null)
    playhead.setClip(clip.frames / clip.fps, clip.fps)
    return () => playhead.pause()
  }, [playhead, clip.id, clip.frames, clip.fps])
  return (
    <>
      <Fitted
        {...size}
        zoom={shapes.zoom}
        media={
          <img
            src={still === null ? NOTHING : atSite(still)}
            alt={still === null ? '' : msg.picture}
            onLoad={({ currentTarget: { naturalWidth: width, naturalHeight: height } }) =>
              still !== null &&
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
      <p className="look-back-hint">{msg.noPictures}</p>
    </>
  )
}
