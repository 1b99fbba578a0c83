import type { Point } from '../../geometry/shapes.ts'

/**
 * The standard's picture runs from −1 to 1, y upwards; ours from 0 to 1, y downwards. Source: ONVIF
 * Analytics (from memory).
 */
export const toStandard = ([x, y]: Point): Point => [2 * x - 1, 1 - 2 * y]

/** Back again, to a hundredth of a percent: devices keep few decimals. */
export const fromStandard = ([x, y]: Point): Point => {
  const round = (v: number): number => Math.round(Math.min(1, Math.max(0, v)) * 1e4) / 1e4
  return [round((x + 1) / 2), round((1 - y) / 2)]
}
