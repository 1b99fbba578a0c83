import { coded } from '../core/messages/said.ts'
import * as v from 'valibot'
import { WalkSchema } from '../core/formats/walk.ts'
import { readScript } from '../simulation/script.ts'
import type { Device } from './camera/device.ts'
import type { Contacts } from './contacts.ts'
import { parseWith } from '../core/schema/parse.ts'

const OrderSchema = v.strictObject({
  walk: WalkSchema,
  /** The instant that hours are to be read at when it begins, milliseconds of UTC. */
  clock: v.pipe(
    v.number(coded('input.mustBeANumber')),
    v.integer(coded('input.mustBeAWholeNumber2'))
  ),
  /** Contacts during the walk, by the device's input that they are on. */
  inputs: v.array(
    v.strictObject({
      device: v.string(),
      token: v.string(),
      changes: v.array(v.strictObject({ at: v.number(), set: v.boolean() }))
    })
  )
})

interface Walking {
  timers: NodeJS.Timeout[]
  held: string[]
}

/** Walks through the live scenes: somebody is put there, walks, and all devices that look see it. */
export class LiveWalks {
  private readonly devices: readonly Device[]
  private readonly contacts: Contacts
  private readonly walking = new Map<string, Walking>()

  constructor(devices: readonly Device[], contacts: Contacts) {
    this.devices = devices
    this.contacts = contacts
  }

  /**
   * Begins a walk in front of a camera; another one there ends.
   *
   * @returns when it began, milliseconds of UTC; null: no device looks at such a scene
   * @throws InputError for an order that is wrong
   */
  async begin(camera: string, body: unknown): Promise<number | null> {
    const { walk, clock, inputs } = parseWith(OrderSchema, body)
    const looking = this.devices.flatMap((device) =>
      device.channels
        .filter((c) => c.model.camera === camera)
        .map((channel) => ({ device, channel }))
    )
    if (!looking.length) return null
    const script = readScript({ id: 'walk', name: 'walk', ...walk })
    this.end(camera)
    const later = clock - Date.now()
    const ready = await Promise.all(
      looking.map(async ({ device, channel }) => ({
        device,
        begin: await channel.scene.prepareWalk(script, later)
      }))
    )
    const walking: Walking = { timers: [], held: [] }
    this.walking.set(camera, walking)
    for (const { device, token, changes } of inputs) {
      const contact = this.devices
        .find((d) => d.model.id === device)
        ?.model.inputs.find((i) => i.token === token)?.contact
      if (contact === undefined) continue
      walking.held.push(contact)
      for (const { at, set } of changes)
        walking.timers.push(setTimeout(() => this.contacts.hold(contact, set), at * 1000))
    }
    for (const { device, begin } of ready) begin(device.moment())
    walking.timers.push(setTimeout(() => this.end(camera), walk.seconds * 1000))
    return Date.now()
  }

  end(camera: string): void {
    const walking = this.walking.get(camera)
    if (!walking) return
    this.walking.delete(camera)
    for (const timer of walking.timers) clearTimeout(timer)
    for (const contact of walking.held) this.contacts.hold(contact, null)
    for (const device of this.devices)
      for (const channel of device.channels)
        if (channel.model.camera === camera) channel.scene.endWalk()
  }

  close(): void {
    for (const camera of [...this.walking.keys()]) this.end(camera)
  }
}
