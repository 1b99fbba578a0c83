/** The face of one target in one frame, in normalised picture coordinates. */
export interface Face {
  x: number
  y: number
  w: number
  h: number
  /** Whether it wears a mask; null: not told. */
  mask: boolean | null
  /** Who it is, where somebody knows. */
  name: string | null
}

/** Faces by frame and target. Few rows have one, so they are kept beside the tracks, not in their columns. */
export type Faces = ReadonlyMap<string, Face>

export const faceKey = (frame: number, target: number): string => `${frame} ${target}`
