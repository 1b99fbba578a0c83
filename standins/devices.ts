import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { readScene, readScript } from '../simulation/script.ts'
import { Device } from './camera/device.ts'
import { readModels } from './camera/model.ts'

/** Which of a camera's scripts its stand-in looks at, over and over again. */
const SCRIPT = 'morning'

/**
 * The simulated cameras of the demo site, each on a port of its own; they keep their settings in `folder`.
 *
 * @param demo the folder of the demo site's data
 */
export async function startDevices(folder: string, demo: URL): Promise<Device[]> {
  const read = (path: string): unknown => JSON.parse(readFileSync(new URL(path, demo), 'utf8'))
  return Promise.all(
    readModels(read('devices.json')).map((model) => {
      const { scene, scripts } = read(`scenes/${model.camera}.json`) as { scene: unknown; scripts: { id: string }[] }
      const script = readScript(scripts.find((s) => s.id === SCRIPT))
      return new Device(model, { scene: readScene(scene), script }, join(folder, `${model.id}.json`)).start()
    })
  )
}
