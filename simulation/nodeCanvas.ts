import { createCanvas } from '@napi-rs/canvas'
import type { MakeCanvas } from './paint/canvas.ts'

/** Canvases on the server. */
export const makeNodeCanvas: MakeCanvas = (width, height) => createCanvas(width, height)
