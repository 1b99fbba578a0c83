import { coded, said } from '../../messages/said.ts'
import { InputError } from '../../errors.ts'
import type { Grid } from '../../measures/measures.ts'
import { packBits, unpackBits } from './packBits.ts'

/**
 * Cells as the standard has them: a bit for each, row by row from the top left, the first in the highest bit of the
 * first byte; PackBits; base64. Source: ONVIF Analytics Service Specification, annex B (from memory).
 */
export function writeActiveCells(cells: readonly string[]): string {
  const bits = cells.join('')
  const bytes = new Uint8Array(Math.ceil(bits.length / 8))
  for (let i = 0; i < bits.length; i++) if (bits[i] === '1') bytes[i >> 3]! |= 128 >> (i & 7)
  return btoa(String.fromCharCode(...packBits(bytes)))
}

/** @throws InputError when the text is not base64, or does not hold as many cells as the grid has */
export function readActiveCells(text: string, { columns, rows }: Grid): string[] {
  let packed: string
  try {
    packed = atob(text.trim())
  } catch {
    throw new InputError(coded('places.activeCells'), said('formats.areMustBe', text.slice(0, 20)))
  }
  const need = Math.ceil((columns * rows) / 8)
  const bytes = unpackBits(
    Uint8Array.from(packed, (c) => c.charCodeAt(0)),
    need
  )
  if (bytes.length !== need)
    throw new InputError(
      coded('places.activeCells'),
      said('formats.holdBytesAGridOf', bytes.length, columns, rows, need)
    )
  return Array.from({ length: rows }, (_, row) =>
    Array.from({ length: columns }, (_, column) =>
      bytes[(row * columns + column) >> 3]! & (128 >> ((row * columns + column) & 7)) ? '1' : '0'
    ).join('')
  )
}
