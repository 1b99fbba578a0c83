import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { demoPlay } from '../../demo/scenes.ts'
import type { Play } from '../../simulation/script.ts'
import { Device } from '../camera/device.ts'
import { readModels, type Model } from '../camera/model.ts'
import { Contacts } from '../contacts.ts'
import { makeDevices } from '../devices.ts'

const models = readModels(
  JSON.parse(readFileSync(new URL('../../demo/devices.json', import.meta.url), 'utf8'))
)
const plays = new Map<string, Play>()
const playOf = ({ camera, script }: { camera: string; script: string }): Play => {
  const key = `${camera} ${script}`
  const play = plays.get(key) ?? demoPlay(camera, script)
  plays.set(key, play)
  return play
}

/** Simulated devices for tests, as many as are wanted; all are closed together. */
export class TestDevices {
  readonly folder = mkdtempSync(join(tmpdir(), 'wardoptic-devices-'))
  /** Contacts that a test holds by hand. */
  readonly contacts = new Contacts()
  private readonly open: Device[] = []
  private readonly ended = new AbortController()

  model(id: string): Model {
    return models.find((m) => m.id === id)!
  }

  /** @param change what is different about this one @param file where it keeps its settings */
  async start(
    id: string,
    change: Partial<Model> = {},
    file = `${id}-${this.open.length}.json`,
    port = 0
  ): Promise<Device> {
    const device = await new Device(
      { ...this.model(id), ...change },
      { playOf },
      join(this.folder, file)
    ).start(port)
    this.open.push(device)
    return device
  }

  /** All the devices of the demo site, which know of each other. */
  async startSite(...ids: string[]): Promise<Device[]> {
    const devices = await Promise.all(
      makeDevices(
        models.filter(({ id }) => ids.includes(id)),
        join(this.folder, 'site'),
        playOf,
        this.ended.signal,
        this.contacts
      ).map((device) => device.start())
    )
    this.open.push(...devices)
    return ids.map((id) => devices.find(({ model }) => model.id === id)!)
  }

  async close(): Promise<void> {
    this.ended.abort()
    await Promise.all(this.open.map((device) => device.close()))
    rmSync(this.folder, { recursive: true, force: true })
  }
}

/** What a test says when it adds a device to a site. */
export const asAdded = ({ model, address }: Device): object => ({
  name: model.name,
  address,
  camera: model.channels.length === 1 ? model.channels[0]!.camera : null,
  username: model.account?.username ?? null,
  password: model.account?.password ?? null
})
