import type { DeviceView } from '../../core/devices/views.ts'
import { standingOf, strangersOf } from '../../core/devices/standing.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'
import type { Database } from '../database.ts'
import { readDetectionsOfSite } from '../detections/rows.ts'
import { readSchedules } from '../sites/rows.ts'
import { listChannels, type ChannelRow } from './channels.ts'
import { listTests, type DeviceRow } from './rows.ts'

/** Everything of the plan and the devices that views of devices are made from, read at one go. */
export interface Everything {
  channels: ChannelRow[]
  /** By camera. */
  detections: ReadonlyMap<string, Detection[]>
  schedules: Schedule[]
  tests: { device: string; token: string; at: number }[]
}

export async function readEverything(database: Database, siteId: string): Promise<Everything> {
  const [channels, detections, schedules, tests] = await Promise.all([listChannels(database), readDetectionsOfSite(database, siteId), readSchedules(database, siteId), listTests(database)])
  return { channels, detections, schedules: schedules.map((kept) => kept.schedule), tests }
}

/** @param inputs states of contacts as they were heard, by token */
export function viewOf(row: DeviceRow, { channels, detections, schedules, tests }: Everything, busy: boolean, inputs: ReadonlyMap<string, boolean>): DeviceView {
  return {
    id: row.id,
    name: row.name,
    address: row.address,
    username: row.username,
    state: row.state,
    trouble: row.trouble,
    information: row.information,
    clockAhead: row.clockAhead,
    readAt: row.readAt,
    busy,
    channels: channels
      .filter(({ device }) => device === row.id)
      .map((channel) => {
        const wanted = channel.camera === null ? [] : detections.get(channel.camera) ?? []
        const others = channels.filter((c) => c !== channel && c.used && c.camera !== null && c.camera === channel.camera)
        return {
          token: channel.token,
          name: channel.name,
          camera: channel.camera,
          used: channel.used,
          abilities: [...channel.abilities],
          mostRules: channel.mostRules,
          modes: [...channel.modes],
          detections: wanted.map((d) => standingOf(d, channel, schedules, others)),
          strangers: strangersOf(wanted, channel),
          switchesBack: channel.switchesBack
        }
      }),
    inputs: row.inputs.map((token) => ({ token, active: inputs.get(token) ?? null })),
    outputs: row.outputs.map((output) => ({ ...output, testedAt: tests.find((t) => t.device === row.id && t.token === output.token)?.at ?? null }))
  }
}
