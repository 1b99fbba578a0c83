import type { WeatherKind } from '../../core/formats/weather.ts'
import type { Sheet } from '../paint/canvas.ts'
import type { Play } from '../script.ts'
import { paintClouds } from './clouds.ts'
import { paintFog } from './fog.ts'
import type { Painting } from './painting.ts'
import { paintRain } from './rain.ts'
import { paintSnow } from './snow.ts'

/** Where a kind lies: on the ground, between the camera and what stands there, or in the light before the lens. */
type Layer = 'ground' | 'air' | 'lens'

/** How each kind of weather is painted; wind moves what others paint. */
const weathers: Record<WeatherKind, { layer: Layer; paint: Painting } | null> = {
  wind: null,
  clouds: { layer: 'ground', paint: paintClouds },
  fog: { layer: 'air', paint: paintFog },
  rain: { layer: 'lens', paint: paintRain },
  snow: { layer: 'lens', paint: paintSnow }
}

/** Paints the weather of one layer over what has been painted so far. */
export function paintWeather(sheet: Sheet, play: Play, layer: Layer, time: number): void {
  for (const kind of Object.keys(weathers) as WeatherKind[]) {
    const strength = play.script.weather[kind]
    if (strength > 0 && weathers[kind]?.layer === layer)
      weathers[kind].paint(sheet, play, strength, time)
  }
}
