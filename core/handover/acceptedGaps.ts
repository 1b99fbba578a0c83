import { said } from '../messages/said.ts'
import { wordsOf } from '../messages/words.ts'
import type { SiteArchive } from '../sites/archive.ts'

/** A link that may be silent in part of the armed hours, as somebody has marked it. */
export interface AcceptedGap {
  camera: string
  detection: string
  sentence: string
}

/** Gaps in the hours of actions that were marked as intended, in the order of the site. */
export const acceptedGapsOf = ({ cameras, endpoints }: SiteArchive): AcceptedGap[] =>
  cameras.flatMap((camera) =>
    camera.detections.flatMap(({ detection, actions }) =>
      actions.accepted.flatMap((id) => {
        const action = endpoints.find((e) => e.id === id)
        if (!action) return []
        const of = `${camera.name}, ${detection.name}`
        return {
          camera: camera.id,
          detection: detection.id,
          sentence: wordsOf(said('handover.gapAccepted', action.name, of))
        }
      })
    )
  )
