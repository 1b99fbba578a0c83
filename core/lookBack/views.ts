/** The days of a camera, as a strip. */
export interface StripView {
  from: number
  to: number
  /** How many targets began in each ten minutes that had any, by class in the order of `CLASSES`. */
  tens: { at: number; counts: number[] }[]
  /** When the camera was listened to; outside of it nobody knows. */
  heard: [from: number, to: number][]
  /** Nothing is kept of this camera. */
  left: boolean
  /** For how many days what it reports is kept. */
  days: number
}

/** The small pictures that were taken in a range: their instants, ms of UTC, in order. */
export interface PicturesView {
  at: number[]
}
