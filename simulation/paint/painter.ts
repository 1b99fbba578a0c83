import type { Play } from '../script.ts'
import { actorsOf, poseAt, viewAt, type Actor } from '../world.ts'
import { contextOf, see, type Canvas, type MakeCanvas, type Sheet } from './canvas.ts'
import { paintFaults } from '../faults/faults.ts'
import { paintActor } from './figures.ts'
import { paintGlitter, paintScenery, plantsOf } from './scenery.ts'
import { dimming } from '../../core/formats/weather.ts'
import { paintWeather } from '../weather/weathers.ts'
import { paintInsects, paintLight } from './light.ts'

/**
 * Paints what the camera of a script sees at a moment, on any 2D canvas; the same for the same moment and seed. What
 * stands still is painted once and kept.
 */
export class Painter {
  readonly canvas: Canvas
  private readonly play: Play
  private readonly make: MakeCanvas
  private readonly actors: Actor[]
  private readonly plants: ReturnType<typeof plantsOf>
  private scenery: { key: string; canvas: Canvas } | null = null

  constructor(play: Play, make: MakeCanvas) {
    this.play = play
    this.make = make
    this.actors = actorsOf(play.script)
    this.plants = plantsOf(play)
    this.canvas = make(play.scene.width, play.scene.height)
  }

  /** The picture at `time` seconds, before the lens and the sensor have done theirs (see sensor.ts). */
  paint(time: number): void {
    const { play } = this
    const { width, height } = play.scene
    const sheet: Sheet = { g: contextOf(this.canvas), width, height, view: viewAt(play, time) }
    const key = JSON.stringify(sheet.view)
    if (this.scenery?.key !== key)
      this.scenery = { key, canvas: paintScenery(this.make, play, sheet.view) }
    sheet.g.drawImage(this.scenery.canvas as CanvasImageSource, 0, 0)
    paintGlitter(sheet, play, time)
    paintWeather(sheet, play, 'ground', time)
    const { weather, light } = play.script
    const shadow = light === 'day' ? 1 - 0.7 * dimming(weather) : 0.4
    const standing = [
      ...this.plants.map((plant) => ({
        depth: plant.depth(sheet),
        paint: () => plant.paint(sheet, time)
      })),
      ...this.actors.flatMap((actor) => {
        const pose = poseAt(actor, time)
        return pose
          ? [
              {
                depth: see(sheet, { ...pose.at, y: 0 }).depth,
                paint: () => paintActor(sheet, actor, pose, shadow)
              }
            ]
          : []
      })
    ]
    standing.sort((a, b) => b.depth - a.depth)
    for (const { paint } of standing) paint()
    paintWeather(sheet, play, 'air', time)
    paintLight(sheet, play, time)
    paintWeather(sheet, play, 'lens', time)
    paintInsects(sheet, play, time)
    paintFaults(sheet, play, time)
  }
}
