import { contextOf, type MakeCanvas } from './paint/canvas.ts'
import { Painter } from './paint/painter.ts'
import type { Play } from './script.ts'
import { DAY_NOISE, NIGHT_NOISE, Noise, defocus, defocusRadius } from './sensor.ts'
import { pictureAt } from './faults/faults.ts'

/** A camera's pictures, one after the other: painted, then as its lens and its sensor give them. */
export class Feed {
  readonly frames: number
  private readonly play: Play
  private readonly painter: Painter
  private readonly noise: Noise
  private last: ImageData | null = null

  constructor(play: Play, make: MakeCanvas) {
    this.play = play
    this.painter = new Painter(play, make)
    const dark = play.script.light === 'night' || play.script.light === 'infrared'
    this.noise = new Noise(play.script.seed + 2, dark ? NIGHT_NOISE : DAY_NOISE)
    this.frames = Math.round(play.script.seconds * play.scene.fps)
  }

  /** Frame `n`, from 1: its RGBA pixels, or null when the camera gives none. Frames are asked for in order. */
  frame(n: number): Uint8ClampedArray | null {
    const { play } = this
    const { width, height, fps } = play.scene
    const time = (n - 1) / fps
    if (pictureAt(play.script, 'none', time) !== null) return null
    if (this.last && pictureAt(play.script, 'frozen', time) !== null) return this.last.data
    this.painter.paint(time)
    const picture = contextOf(this.painter.canvas).getImageData(0, 0, width, height)
    const blurred = pictureAt(play.script, 'blurred', time)
    if (blurred !== null) defocus(picture.data, width, height, defocusRadius(blurred, height))
    this.noise.add(picture.data)
    this.last = picture
    return picture.data
  }
}
