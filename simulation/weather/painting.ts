import type { Sheet } from '../paint/canvas.ts'
import type { Play } from '../script.ts'

/** Paints one kind of weather, if there is any of it. @param strength above 0, to 1 */
export type Painting = (sheet: Sheet, play: Play, strength: number, time: number) => void
