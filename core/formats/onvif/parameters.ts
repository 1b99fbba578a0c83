import type { TargetClass } from '../../targets/classes.ts'

/** The standard's names of classes (from memory). */
export const classNames: Record<Exclude<TargetClass, 'unknown'>, string> = {
  person: 'Human',
  vehicle: 'Vehicle',
  cycle: 'Bicycle',
  animal: 'Animal'
}

/** The standard's directions of a line (from memory). */
export const directions = { leftToRight: 'Right', rightToLeft: 'Left', both: 'Any' } as const

/** A frame's size as one item: width and height as shares of the picture. */
export const sizeText = ({ w, h }: { w: number; h: number }): string => `${w} ${h}`

export function sizeOf(text: string): { w: number; h: number } | null {
  const [w, h] = text.trim().split(/\s+/).map(Number) as [number, number]
  return w >= 0 && w <= 1 && h >= 0 && h <= 1 ? { w, h } : null
}
