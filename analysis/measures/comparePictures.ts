import { createCanvas, loadImage, type Image } from '@napi-rs/canvas'
import { emptyMeasures, USUAL_GRID } from '../../core/measures/measures.ts'
import { tamperCauses } from '../../core/kinds/tamper/run.ts'
import type { TamperCause } from '../../core/kinds/tamper/schema.ts'
import { analysedSize, type FrameSize } from '../frames.ts'
import { emptyLuma, lumaOf, sharpnessOf, spreadOf, type Luma } from './pictures.ts'
import { Reference } from './reference.ts'

/** The middle of the scale: what a tamper detection is set to when nobody has set it otherwise. */
const SENSITIVITY = 50

function lumaOfImage(image: Image, { width, height }: FrameSize): Luma {
  const g = createCanvas(width, height).getContext('2d')
  g.drawImage(image, 0, 0, width, height)
  const { data } = g.getImageData(0, 0, width, height)
  const bgr = new Uint8Array(3 * width * height)
  for (let i = 0; i < width * height; i++)
    [bgr[3 * i], bgr[3 * i + 1], bgr[3 * i + 2]] = [
      data[4 * i + 2]!,
      data[4 * i + 1]!,
      data[4 * i]!
    ]
  const luma = emptyLuma(width, height)
  lumaOf(bgr, luma, emptyLuma(width, height))
  return luma
}

/**
 * What has become of a picture since an earlier one of the same camera: covered, dark, washed out, out of focus, moved;
 * by the same measures and limits as tamper (docs/measures.md). Empty: nothing. A picture of another shape has moved.
 *
 * @param before, now encoded pictures (JPEG or PNG)
 */
export async function comparePictures(before: Buffer, now: Buffer): Promise<TamperCause[]> {
  const [a, b] = [await loadImage(before), await loadImage(now)]
  if (Math.abs(a.width / a.height - b.width / b.height) > 0.02) return ['moved']
  const size = analysedSize(a)
  // At one picture a second two of them make a reference, and none is smoothed away by another.
  const reference = new Reference(size.width, size.height, 1)
  const wholeOf = (luma: Luma): { luma: number; contrast: number } => {
    const { mean, deviation } = spreadOf(luma)
    return { luma: mean, contrast: deviation }
  }
  const [first, second] = [lumaOfImage(a, size), lumaOfImage(b, size)]
  for (let i = 0; i < 2; i++) reference.next(first, wholeOf(first))
  const measures = emptyMeasures(USUAL_GRID, size.width, size.height, 1, 1)
  measures.length = 1
  const { before: kept } = reference
  const earlier = { luma: kept.luma, contrast: kept.contrast, detail: kept.detail }
  const all = {
    ...wholeOf(second),
    sharpness: sharpnessOf(second),
    ...reference.next(second, wholeOf(second), false),
    lumaBefore: earlier.luma,
    contrastBefore: earlier.contrast,
    detailBefore: earlier.detail
  }
  for (const [figure, value] of Object.entries(all))
    measures.figures[figure as keyof typeof measures.figures][0] = value
  return tamperCauses(measures, 0, SENSITIVITY)
}
