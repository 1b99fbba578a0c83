import type { Sheet } from '../paint/canvas.ts'
import type { Play } from '../script.ts'

/** Paints what is done to the lens or to the light of the place. @param since seconds for which it has been so */
export type FaultPainting = (sheet: Sheet, play: Play, since: number) => void
