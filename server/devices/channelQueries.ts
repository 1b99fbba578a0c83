import { said } from '../../core/messages/said.ts'
import type { Channel } from '../../core/devices/standing.ts'
import type { AnalysisMode, RuleAbility, Rule } from '../../core/formats/onvif/rule.ts'
import {
  surroundingsFor,
  type Surroundings,
  type SurroundingsStanding,
  type SurroundingsSwitch
} from '../../core/sites/surroundings.ts'
import type { Sql } from '../database.ts'
import { notFound } from '../errors.ts'
import { parsedOnce } from '../columns.ts'

/** A device's channel as it is kept. */
export interface ChannelRow extends Channel {
  profile: string
  /** Of live pictures. */
  picture: string
  /** Whether it says what its analysis sees. */
  hasMetadata: boolean
  /** Types of rules that the last sending took off the device. */
  removedTypes: string[]
  /** Types of rules that the device was seen to switch on again by itself. */
  switchesBack: string[]
}

/** What a channel holds of what can be sent to it. */
export interface Held {
  held: Rule[]
  surroundings: SurroundingsSwitch | null
}

/** What reading a device says of a channel. */
export interface ChannelReading extends Held {
  token: string
  profile: string
  picture: string
  hasMetadata: boolean
  name: string
  abilities: RuleAbility[]
  mostRules: number | null
  modes: AnalysisMode[]
}

interface Raw {
  device_id: string
  device_name: string
  token: string
  profile: string
  picture_profile: string | null
  has_metadata: number
  name: string
  camera_id: string | null
  used: number
  read_at: number | null
  abilities: unknown
  most_rules: number | null
  modes: unknown
  held_rules: unknown
  sent_rules: unknown
  removed_types: unknown
  switches_back: unknown
  surroundings: unknown
  camera_surroundings: Surroundings
}

const select = `SELECT c.device_id, device.name AS device_name, c.token, c.profile, c.picture_profile, c.has_metadata, c.name, camera.id AS camera_id, c.used, device.read_at, c.abilities, c.most_rules, c.modes, c.held_rules, c.sent_rules, c.removed_types, c.switches_back, c.surroundings, COALESCE(camera.surroundings, site.surroundings) AS camera_surroundings
    FROM device_channel c JOIN device ON device.id = c.device_id JOIN site ON site.id = device.site_id LEFT JOIN camera ON camera.id = c.camera_id AND NOT camera.removed`

const rowOf = (r: Raw): ChannelRow => ({
  device: r.device_id,
  deviceName: r.device_name,
  token: r.token,
  profile: r.profile,
  picture: r.picture_profile ?? r.profile,
  hasMetadata: r.has_metadata !== 0,
  name: r.name,
  camera: r.camera_id,
  used: r.used !== 0,
  readAt: r.read_at,
  abilities: parsedOnce<RuleAbility[]>(r.abilities),
  mostRules: r.most_rules,
  modes: parsedOnce<AnalysisMode[]>(r.modes),
  held: parsedOnce<Rule[]>(r.held_rules),
  sent: r.sent_rules === null ? null : parsedOnce<Rule[]>(r.sent_rules),
  removedTypes: parsedOnce<string[]>(r.removed_types),
  switchesBack: parsedOnce<string[]>(r.switches_back),
  surroundings: standingOfSwitch(r)
})

function standingOfSwitch(r: Raw): SurroundingsStanding | null {
  if (r.camera_id === null || r.surroundings === null) return null
  const found = parsedOnce<SurroundingsSwitch>(r.surroundings)
  return { held: found.held, wanted: surroundingsFor(found, r.camera_surroundings) }
}

/** All channels of all devices, in the devices' own order. */
export async function listChannels(sql: Sql, site?: string): Promise<ChannelRow[]> {
  return (
    await sql.rows<Raw>(
      `${select} WHERE NOT site.removed${site === undefined ? '' : ' AND site.id = ?'} ORDER BY c.device_id, c.position`,
      site === undefined ? [] : [site]
    )
  ).map(rowOf)
}

/** Those that show a camera, in the devices' own order. */
export async function channelsShowing(sql: Sql, camera: string): Promise<ChannelRow[]> {
  return (
    await sql.rows<Raw>(`${select} WHERE camera.id = ? ORDER BY c.device_id, c.position`, [camera])
  ).map(rowOf)
}

/** A device's own, and those of other devices that show the same cameras; in the devices' own order. */
export async function channelsBeside(sql: Sql, device: string): Promise<ChannelRow[]> {
  return (
    await sql.rows<Raw>(
      `${select} WHERE c.device_id = ? OR c.camera_id IN (SELECT camera_id FROM device_channel WHERE device_id = ?) ORDER BY c.device_id, c.position`,
      [device, device]
    )
  ).map(rowOf)
}

export async function channelsOf(sql: Sql, deviceId: string): Promise<ChannelRow[]> {
  return (
    await sql.rows<Raw>(`${select} WHERE c.device_id = ? ORDER BY c.position`, [deviceId])
  ).map(rowOf)
}

export async function channelOf(sql: Sql, deviceId: string, token: string): Promise<ChannelRow> {
  const found = (await channelsOf(sql, deviceId)).find((channel) => channel.token === token)
  if (!found) throw notFound(said('things.channel', token.slice(0, 64)))
  return found
}

/**
 * Keeps the channels of a device as they have just been read; what people said of them stays. A channel that the device
 * has no more goes.
 *
 * @param cameraOf the camera of a channel that is seen for the first time
 */
export async function keepChannels(
  sql: Sql,
  deviceId: string,
  read: readonly ChannelReading[],
  cameraOf: (channel: ChannelReading, position: number) => Promise<string | null>
): Promise<void> {
  const known = await channelsOf(sql, deviceId)
  for (const gone of known.filter(({ token }) => !read.some((c) => c.token === token)))
    await sql.run('DELETE FROM device_channel WHERE device_id = ? AND token = ?', [
      deviceId,
      gone.token
    ])
  for (const [position, c] of read.entries()) {
    const before = known.find(({ token }) => token === c.token)
    const values = [
      position,
      c.profile,
      c.picture,
      c.hasMetadata,
      c.name.slice(0, 80),
      JSON.stringify(c.abilities),
      c.mostRules,
      JSON.stringify(c.modes),
      JSON.stringify(c.held),
      JSON.stringify(switchesBackOf(before, c.held)),
      c.surroundings && JSON.stringify(c.surroundings)
    ]
    if (before)
      await sql.run(
        'UPDATE device_channel SET position = ?, profile = ?, picture_profile = ?, has_metadata = ?, name = ?, abilities = ?, most_rules = ?, modes = ?, held_rules = ?, switches_back = ?, surroundings = ? WHERE device_id = ? AND token = ?',
        [...values, deviceId, c.token]
      )
    else
      await sql.run(
        "INSERT INTO device_channel (position, profile, picture_profile, has_metadata, name, abilities, most_rules, modes, held_rules, switches_back, surroundings, device_id, token, camera_id, removed_types) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, '[]')",
        [...values, deviceId, c.token, await cameraOf(c, position)]
      )
  }
}

/** Types of rules that the device was seen to switch on again by itself, with those that it holds again now. */
function switchesBackOf(before: ChannelRow | undefined, held: readonly Rule[]): string[] {
  const back = held
    .filter(
      ({ name, type }) =>
        before?.removedTypes.includes(type) && !before.sent?.some((rule) => rule.name === name)
    )
    .map(({ type }) => type)
  return [...new Set([...(before?.switchesBack ?? []), ...back])]
}

/** Keeps what a channel holds, read by itself; the rest stands as it was read last. */
export async function keepHeld(
  sql: Sql,
  before: ChannelRow,
  { held, surroundings }: Held
): Promise<void> {
  await sql.run(
    'UPDATE device_channel SET held_rules = ?, switches_back = ?, surroundings = ? WHERE device_id = ? AND token = ?',
    [
      JSON.stringify(held),
      JSON.stringify(switchesBackOf(before, held)),
      surroundings && JSON.stringify(surroundings),
      before.device,
      before.token
    ]
  )
}

export async function changeChannel(
  sql: Sql,
  deviceId: string,
  token: string,
  { camera, used }: { camera?: string | null; used?: boolean }
): Promise<void> {
  const now = await channelOf(sql, deviceId, token)
  // What was sent was for the camera that it was.
  const sent = camera !== undefined && camera !== now.camera ? null : now.sent
  await sql.run(
    'UPDATE device_channel SET camera_id = ?, used = ?, sent_rules = ? WHERE device_id = ? AND token = ?',
    [
      camera === undefined ? now.camera : camera,
      used ?? now.used,
      sent && JSON.stringify(sent),
      deviceId,
      token
    ]
  )
}

export async function keepSent(
  sql: Sql,
  deviceId: string,
  token: string,
  sent: readonly Rule[],
  removedTypes: readonly string[]
): Promise<void> {
  await sql.run(
    'UPDATE device_channel SET sent_rules = ?, removed_types = ? WHERE device_id = ? AND token = ?',
    [JSON.stringify(sent), JSON.stringify(removedTypes), deviceId, token]
  )
}
