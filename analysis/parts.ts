import type { Box } from '../core/geometry/shapes.ts'
import type { FrameSize } from './frames.ts'

/** Pixels of the side of a cell, by which is looked for what is empty. */
const CELL = 16
/** A part goes on for so many pixels beyond its cells, less than half a cell: what is done in it needs surroundings. */
const MARGIN = 4

/**
 * Parts of a mask that hold all its pixels that are not 0. No pixel of one is within `CELL` of a pixel of another, and
 * each has `MARGIN` around its pixels, up to the picture's edge: each can be worked on by itself. Most of a picture is
 * empty, and what is done to all of it takes long.
 *
 * @param mask a byte a pixel, at a multiple of four bytes in its memory, as OpenCV has it
 */
export function partsOf(mask: Uint8Array, { width, height }: FrameSize): Box[] {
  const columns = Math.ceil(width / CELL)
  const rows = Math.ceil(height / CELL)
  const on = new Uint8Array(columns * rows)
  const mark = (i: number): void => {
    if (mask[i])
      on[Math.floor(Math.floor(i / width) / CELL) * columns + Math.floor((i % width) / CELL)] = 1
  }
  // Four pixels at a time.
  const words = new Uint32Array(mask.buffer, mask.byteOffset, Math.floor(mask.length / 4))
  for (let word = 0; word < words.length; word++)
    if (words[word]) for (let i = 4 * word; i < 4 * word + 4; i++) mark(i)
  for (let i = 4 * words.length; i < mask.length; i++) mark(i)
  return joined(boxesOf(on, columns)).map(({ x, y, w, h }) => {
    const [left, top] = [Math.max(0, x * CELL - MARGIN), Math.max(0, y * CELL - MARGIN)]
    return {
      x: left,
      y: top,
      w: Math.min(width, (x + w) * CELL + MARGIN) - left,
      h: Math.min(height, (y + h) * CELL + MARGIN) - top
    }
  })
}

/** In each row of cells, the stretches of those that are on. */
function boxesOf(on: Uint8Array, columns: number): Box[] {
  const boxes: Box[] = []
  for (let i = 0; i < on.length; i++) {
    if (!on[i]) continue
    const [x, y] = [i % columns, Math.floor(i / columns)]
    const before = boxes.at(-1)
    if (before?.y === y && before.x + before.w === x) before.w++
    else boxes.push({ x, y, w: 1, h: 1 })
  }
  return boxes
}

/** Boxes that overlap, or touch at a side or a corner, made one, until none do. */
function joined(boxes: readonly Box[]): Box[] {
  const apart: Box[] = []
  for (const box of boxes) {
    let one = box
    for (let i = apart.findIndex((other) => touch(one, other)); i >= 0;) {
      one = around(one, apart.splice(i, 1)[0]!)
      i = apart.findIndex((other) => touch(one, other))
    }
    apart.push(one)
  }
  return apart
}

const touch = (a: Box, b: Box): boolean =>
  a.x <= b.x + b.w && b.x <= a.x + a.w && a.y <= b.y + b.h && b.y <= a.y + a.h

function around(a: Box, b: Box): Box {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)]
  return {
    x,
    y,
    w: Math.max(a.x + a.w, b.x + b.w) - x,
    h: Math.max(a.y + a.h, b.y + b.h) - y
  }
}
