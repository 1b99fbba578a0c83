import { randomUUID } from 'node:crypto'
import { said } from '../../core/messages/said.ts'
import type { Sql } from '../database.ts'
import { saveCamera } from '../sites/cameras.ts'
import { readSite } from '../sites/queries.ts'
import { listChannels, type ChannelReading } from './channelQueries.ts'
import type { DeviceRow } from './queries.ts'

/** What devices call a picture that nobody has named. */
const UNNAMED =
  /^(video|image|camera|channel|media|profile|main|source|stream|config|[\s_\-.#]|\d)*$/i

/**
 * Which camera each new channel of a device shows. A device of one picture is the camera that was chosen; a recorder's
 * pictures are known by their names. On the first reading of a device that is to make cameras, what has none becomes
 * one. In the transaction that keeps the channels. The site is read when the first new channel is asked about: devices are
 * read again all the time, and hardly ever have one.
 */
export function camerasOf(
  sql: Sql,
  row: Pick<DeviceRow, 'site' | 'name' | 'camera' | 'makesCameras' | 'readAt'>,
  channels: readonly ChannelReading[]
): (channel: ChannelReading, position: number) => Promise<string | null> {
  let asking: ReturnType<typeof newChannels> | undefined
  return async (channel, position) =>
    (await (asking ??= newChannels(sql, row, channels)))(channel, position)
}

async function newChannels(
  sql: Sql,
  row: Parameters<typeof camerasOf>[1],
  channels: readonly ChannelReading[]
): Promise<ReturnType<typeof camerasOf>> {
  const site = await readSite(sql, row.site)
  const cameras = [...site.cameras]
  const others = await listChannels(sql, site.id)
  const alone = channels.length === 1
  const makes = row.makesCameras && row.readAt === null

  /** Whether a camera of the same name is the same one: not when another device of one picture is that already. */
  const isFree = (camera: string): boolean =>
    !alone ||
    others
      .filter((c) => c.camera === camera)
      .every(({ device }) => others.filter((c) => c.device === device).length > 1)

  const nameOf = ({ name }: ChannelReading, position: number): string => {
    const own =
      !UNNAMED.test(name) &&
      channels.filter((c) => c.name === name).length === 1 &&
      cameras.every((c) => c.name !== name || isFree(c.id))
    return (own ? name : alone ? row.name : `${row.name} ${position + 1}`).slice(0, 80)
  }

  return async (channel, position) => {
    if (alone && row.camera !== null) return row.camera
    if (!makes) return alone ? null : (cameras.find((c) => c.name === channel.name)?.id ?? null)
    const name = nameOf(channel, position)
    const namesake = cameras.find((c) => c.name === name && isFree(c.id))
    if (namesake) return namesake.id
    const id = `camera-${randomUUID()}`
    const order = cameras.length
    await saveCamera(
      sql,
      site.id,
      id,
      { name, order, surroundings: null },
      0,
      { by: row.name, byId: null, label: said('edits.addCamera', name) },
      Date.now()
    )
    cameras.push({
      id,
      name,
      order,
      surroundings: null,
      version: 1,
      changedAt: 0,
      detections: 0,
      clips: 0,
      clip: null
    })
    return id
  }
}
