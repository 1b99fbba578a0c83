import type { Said } from '../../core/messages/said.ts'
import type { DeviceView } from '../../core/devices/views.ts'
import { grouped } from '../../core/grouped.ts'
import { standingOf, unmanagedOf } from '../../core/devices/standing.ts'
import { outputDifferences, wantedOutput } from '../../core/devices/outputs.ts'
import type { Actions, Endpoint } from '../../core/formats/actions.ts'
import type { Detection, Schedule } from '../../core/formats/plan.ts'
import type { Database } from '../database.ts'
import { readEndpoints } from '../actions/queries.ts'
import { readAllDetections } from '../detections/queries.ts'
import { readSchedules } from '../sites/queries.ts'
import { channelsBeside, listChannels, type ChannelRow } from './channelQueries.ts'
import { listTests, type DeviceRow } from './queries.ts'

/** Everything of the plan and the devices that views of devices are made from, read at one go. */
export interface Everything {
  channels: ChannelRow[]
  /** The same, by device and by the camera that they show. */
  channelsOf: ReadonlyMap<string, ChannelRow[]>
  channelsShowing: ReadonlyMap<string | null, ChannelRow[]>
  /** By camera. */
  detections: ReadonlyMap<string, Detection[]>
  schedules: Schedule[]
  endpoints: Endpoint[]
  /** By camera and detection, `camera detection`. */
  actions: ReadonlyMap<string, Actions>
  tests: { device: string; token: string; at: number }[]
}

/** @param device only what is of this device, and of the others that show its cameras; left out: all of the site */
export async function readEverything(
  database: Database,
  siteId: string,
  device?: string
): Promise<Everything> {
  const ofDevice = device === undefined ? null : await channelsBeside(database, device)
  const cameras = ofDevice?.flatMap(({ camera }) => camera ?? [])
  const [channels, all, schedules, endpoints, tests] = await Promise.all([
    ofDevice ?? listChannels(database, siteId),
    readAllDetections(database, siteId, cameras),
    readSchedules(database, siteId),
    readEndpoints(database, siteId),
    listTests(database)
  ])
  return {
    channels,
    channelsOf: grouped(channels, (c) => c.device),
    channelsShowing: grouped(channels, (c) => c.camera),
    detections: new Map(
      [...grouped(all, ({ camera }) => camera)].map(([camera, own]) => [
        camera,
        own.map(({ detection }) => detection)
      ])
    ),
    schedules: schedules.map((kept) => kept.schedule),
    endpoints: endpoints.map((kept) => kept.endpoint),
    actions: new Map(
      all.map(({ camera, detection, actions }) => [`${camera} ${detection.id}`, actions.actions])
    ),
    tests
  }
}

/** What of a device's output is not on the device yet. */
export const waitingOf = (
  row: DeviceRow,
  output: DeviceRow['outputs'][number],
  { channelsOf, endpoints, actions, schedules }: Everything
): Said[] =>
  output.keeps
    ? outputDifferences(
        wantedOutput(
          row.id,
          output.token,
          endpoints,
          channelsOf.get(row.id) ?? [],
          actions,
          schedules
        ),
        output.held
      )
    : []

/** @param inputs states of contacts as they were heard, by token */
export function viewOf(
  row: DeviceRow,
  everything: Everything,
  busy: boolean,
  inputs: ReadonlyMap<string, boolean>
): DeviceView {
  const { channelsOf, channelsShowing, detections, schedules, tests } = everything
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
    certificate:
      row.certificate === null ? null : { kept: row.certificate, shown: row.shownCertificate },
    busy,
    channels: (channelsOf.get(row.id) ?? []).map((channel) => {
      const { camera } = channel
      const wanted = camera === null ? [] : (detections.get(camera) ?? [])
      const others =
        camera === null ? [] : channelsShowing.get(camera)!.filter((c) => c !== channel && c.used)
      return {
        token: channel.token,
        name: channel.name,
        camera,
        used: channel.used,
        abilities: [...channel.abilities],
        mostRules: channel.mostRules,
        modes: [...channel.modes],
        detections: wanted.map((d) => standingOf(d, channel, schedules, others)),
        unmanaged: unmanagedOf(wanted, channel),
        switchesBack: channel.switchesBack,
        surroundings: channel.surroundings
      }
    }),
    inputs: row.inputs.map((token) => ({ token, active: inputs.get(token) ?? null })),
    outputs: row.outputs.map((output) => ({
      token: output.token,
      kind: output.kind,
      name: output.name,
      active: output.active,
      waiting: waitingOf(row, output, everything),
      testedAt: tests.find((t) => t.device === row.id && t.token === output.token)?.at ?? null
    }))
  }
}
