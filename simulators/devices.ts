import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Play } from '../simulation/script.ts'
import { readScene, readScript } from '../simulation/script.ts'
import { Device } from './camera/device.ts'
import { readModels, type Model } from './camera/model.ts'
import type { Contacts } from './contacts.ts'
import { measurerOf } from './measuring.ts'

/**
 * The simulated devices of the demo site, each on a port of its own; they keep their settings in `folder`.
 *
 * @param demo the folder of the demo site's data
 * @param ended ends what they do beside answering
 */
export async function startDevices(
  folder: string,
  demo: URL,
  ended: AbortSignal,
  contacts?: Contacts
): Promise<Device[]> {
  const read = (path: string): unknown => JSON.parse(readFileSync(new URL(path, demo), 'utf8'))
  const plays = new Map<string, Play>()
  const playOf = ({ camera, script }: { camera: string; script: string }): Play => {
    const key = `${camera} ${script}`
    let play = plays.get(key)
    if (!play) {
      const { scene, scripts } = read(`scenes/${camera}.json`) as {
        scene: unknown
        scripts: { id: string }[]
      }
      plays.set(
        key,
        (play = {
          scene: readScene(scene),
          script: readScript(scripts.find((s) => s.id === script))
        })
      )
    }
    return play
  }
  return Promise.all(
    makeDevices(readModels(read('devices.json')), folder, playOf, ended, contacts).map((device) =>
      device.start()
    )
  )
}

/** Devices that know of each other, so that one can be another route to the settings of the next. */
export function makeDevices(
  models: readonly Model[],
  folder: string,
  playOf: (channel: { camera: string; script: string }) => Play,
  ended: AbortSignal,
  contacts?: Contacts
): Device[] {
  const made: Device[] = []
  const measuresOf = measurerOf(join(folder, 'measures'), ended)
  const doorsLast = [...models].sort(
    (a, b) => Number(a.channels.some((c) => c.through)) - Number(b.channels.some((c) => c.through))
  )
  for (const model of doorsLast)
    made.push(
      new Device(
        model,
        {
          playOf,
          measuresOf,
          contacts,
          channelOf: (id) => made.find((d) => d.model.id === id)?.channels[0]
        },
        join(folder, `${model.id}.json`)
      )
    )
  return made
}
