import type { CameraPose } from '../../core/scene/camera.ts'
import type { Walk } from '../../core/formats/walk.ts'
import type { Stage } from '../../core/proving/stage.ts'
import { trueTracks } from '../../simulation/evidence.ts'
import { readScene, type Play, type Scene } from '../../simulation/script.ts'

/** Where walks can be walked: a simulated scene, or bare ground under a measured camera; null: neither is there. */
export interface Ground {
  scene: Scene
  /** Whether it has anything to be painted. */
  painted: boolean
}

const HEIGHT = 360

export function groundOf(world: { scene: unknown } | null, pose: CameraPose | null): Ground | null {
  if (world) return { scene: readScene(world.scene), painted: true }
  if (!pose) return null
  return {
    scene: readScene({
      id: 'measured',
      name: 'Measured',
      camera: { height: pose.height, tilt: pose.tilt, fieldOfView: pose.fieldOfView },
      width: Math.max(64, Math.round(HEIGHT * pose.aspect)),
      height: HEIGHT,
      things: []
    }),
    painted: false
  }
}

export const playOf = (scene: Scene, walk: Walk): Play => ({
  scene,
  script: { id: 'walk', name: 'walk', ...walk }
})

export const stageOf = ({ scene }: Ground): Stage => ({
  pose: { ...scene.camera, aspect: scene.width / scene.height },
  fps: scene.fps,
  tracksOf: (walk) => trueTracks(playOf(scene, walk))
})
