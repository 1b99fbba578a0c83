import { said } from '../core/messages/said.ts'
import { readFileSync } from 'node:fs'
import { InputError } from '../core/errors.ts'
import { readScene, readScript, type Play, type Scene, type Script } from '../simulation/script.ts'

/** The cameras of Skerrow Landing that have a scene, in the order of the rail. */
export const DEMO_CAMERAS = [
  'slipway',
  'vehicle-lanes',
  'fuel-pontoon',
  'waiting-room',
  'workshop-yard',
  'quay-path'
] as const

/** A camera's scene and its scripts. @throws InputError when there is none of that name, or a file is wrong */
export function readDemo(camera: string): { scene: Scene; scripts: Script[] } {
  if (!(DEMO_CAMERAS as readonly string[]).includes(camera))
    throw new InputError('camera', said('cli.hasNoScene', camera, DEMO_CAMERAS.join(', ')))
  const { scene, scripts } = JSON.parse(
    readFileSync(new URL(`scenes/${camera}.json`, import.meta.url), 'utf8')
  ) as { scene: unknown; scripts: unknown[] }
  return { scene: readScene(scene), scripts: scripts.map(readScript) }
}

export function demoPlay(camera: string, script: string): Play {
  const { scene, scripts } = readDemo(camera)
  const found = scripts.find((s) => s.id === script)
  if (!found)
    throw new InputError(
      'script',
      said('cli.hasNoScript', script, camera, scripts.map((s) => s.id).join(', '))
    )
  return { scene, script: found }
}
