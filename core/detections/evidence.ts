import type { Measures } from '../measures/measures.ts'
import type { Tracks } from '../targets/tracks.ts'

/** What detections are evaluated on: targets with their faces, and the frame measures of a clip. */
export interface Evidence {
  tracks: Tracks
  /** Null: only targets are known, as of what a camera reported. */
  measures: Measures | null
}

/** What is known of a clip. */
export interface ClipEvidence extends Evidence {
  measures: Measures
}
