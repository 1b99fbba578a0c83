import * as v from 'valibot'
import { number } from '../schema/parts.ts'

/** Weather over a scene: how strong each kind is, 0 to 1. */

export const WEATHERS = ['wind', 'rain', 'snow', 'fog', 'clouds'] as const
export type WeatherKind = (typeof WEATHERS)[number]

const share = v.optional(number(0, 1), 0)
export const WeatherSchema = v.strictObject({
  wind: share,
  rain: share,
  snow: share,
  fog: share,
  clouds: share
} satisfies Record<WeatherKind, typeof share>)
export type Weather = v.InferOutput<typeof WeatherSchema>

export const CALM: Weather = { wind: 0, rain: 0, snow: 0, fog: 0, clouds: 0 }

/** What checks are proposed in. */
export const STORM: Weather = { ...CALM, wind: 0.8, rain: 0.8, clouds: 0.6 }
export const SNOWFALL: Weather = { ...CALM, snow: 0.7, clouds: 0.5 }
export const LIGHT_SNOW: Weather = { ...CALM, snow: 0.4 }
export const BREEZE: Weather = { ...CALM, wind: 0.3 }

/** What a walk can be ordered in. */
export const ORDERED = [
  { name: 'calm', weather: CALM },
  { name: 'wind', weather: { ...CALM, wind: 0.8 } },
  { name: 'rain', weather: { ...CALM, rain: 0.8, wind: 0.5, clouds: 0.5 } },
  { name: 'snow', weather: { ...CALM, snow: 0.8, wind: 0.3 } },
  { name: 'fog', weather: { ...CALM, fog: 0.7 } }
] as const satisfies readonly { name: string; weather: Weather }[]

/** How much weather takes from the sun's shadows, 0 to 1. */
export const dimming = ({ rain, snow, fog, clouds }: Weather): number =>
  Math.max(rain, snow, fog, clouds * 0.5)
