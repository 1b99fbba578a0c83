import type { Measures } from '../measures/measures.ts'
import type { Tracks } from '../targets/tracks.ts'

/** What detections are evaluated on: a clip's targets with their faces, and its frame measures. */
export interface Evidence {
  tracks: Tracks
  measures: Measures
}
