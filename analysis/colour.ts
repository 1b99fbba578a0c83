/** A colour as the eye compares two of them: two ratios that light does not change, and how bright it is. */
export interface Colour {
  redness: number
  blueness: number
  brightness: number
}

/** Added to each channel: of what is nearly black, ratios are noise. */
const DARK = 12

/** @param b 0 to 255, as the others */
export function colourOf(b: number, g: number, r: number): Colour {
  return {
    redness: Math.log((r + DARK) / (g + DARK)),
    blueness: Math.log((b + DARK) / (g + DARK)),
    brightness: Math.log((b + g + r) / 3 + DARK)
  }
}

/** How far apart two are in hue and saturation, whatever the light. */
export const hueApart = (a: Colour, b: Colour): number =>
  Math.hypot(a.redness - b.redness, a.blueness - b.blueness)

/** How far apart two are in hue, saturation and brightness. */
export const colourApart = (a: Colour, b: Colour): number =>
  Math.hypot(hueApart(a, b), a.brightness - b.brightness)

/** Hues nearer to grey than this are those of a picture without colour: infra-red, dusk. */
const COLOURLESS = 0.02
const GREY: Colour = { redness: 0, blueness: 0, brightness: 0 }

/** Whether none of them has a hue that says anything. */
export const areGrey = (...colours: readonly Colour[]): boolean =>
  colours.every((colour) => hueApart(colour, GREY) < COLOURLESS)

const middle = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1]!

/** The median of each part; of at least one colour. */
export const medianColour = (colours: readonly Colour[]): Colour => ({
  redness: middle(colours.map((c) => c.redness)),
  blueness: middle(colours.map((c) => c.blueness)),
  brightness: middle(colours.map((c) => c.brightness))
})
