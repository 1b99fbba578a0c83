import { said, type Said, saidOf } from '../../core/messages/said.ts'
import type { StorageView } from '../../core/devices/upkeep.ts'
import type { DeviceState } from '../../core/devices/views.ts'
import type { Sql } from '../database.ts'
import { notFound } from '../errors.ts'
import { outcomeText, parsedOnce } from '../columns.ts'
import type { LinkOutput } from './link/inputsAndOutputs.ts'
import type { Information } from './link/link.ts'
import type { Subscription } from './listener.ts'

/** A device as it is kept. */
export interface DeviceRow {
  id: string
  /** The id of its site. */
  site: string
  camera: string | null
  name: string
  address: string
  username: string | null
  sealed: Buffer | null
  state: DeviceState
  trouble: Said | string | null
  information: Information | null
  clockAhead: number | null
  inputs: string[]
  outputs: LinkOutput[]
  /** Where it records to; null: it does not say. */
  storage: StorageView[] | null
  /** SHA-256 of the certificate that it is known by over TLS; null: none yet. */
  certificate: string | null
  /** Of another one, that it has shown instead. */
  shownCertificate: string | null
  readAt: number | null
  subscription: Subscription
  /** Each of its pictures becomes a camera when it is read for the first time. */
  makesCameras: boolean
}

interface Raw {
  id: string
  site_id: string
  camera_id: string | null
  name: string
  address: string
  username: string | null
  password_sealed: Buffer | null
  state: DeviceState
  trouble: string | null
  information: unknown
  clock_ahead: number | null
  inputs: unknown
  outputs: unknown
  storage: unknown
  certificate: string | null
  shown_certificate: string | null
  read_at: number | null
  pull_point: string | null
  heard_at: number | null
  makes_cameras: number
}

const select =
  'SELECT id, site_id, camera_id, name, address, username, password_sealed, state, trouble, information, clock_ahead, inputs, outputs, storage, certificate, shown_certificate, read_at, pull_point, heard_at, makes_cameras FROM device'

const rowOf = (r: Raw): DeviceRow => ({
  id: r.id,
  site: r.site_id,
  camera: r.camera_id,
  name: r.name,
  address: r.address,
  username: r.username,
  sealed: r.password_sealed,
  state: r.state,
  trouble: r.trouble === null ? null : saidOf(r.trouble),
  information: r.information === null ? null : parsedOnce<Information>(r.information),
  clockAhead: r.clock_ahead,
  inputs: r.inputs === null ? [] : parsedOnce<string[]>(r.inputs),
  outputs: r.outputs === null ? [] : parsedOnce<LinkOutput[]>(r.outputs),
  storage: r.storage === null ? null : parsedOnce<StorageView[]>(r.storage),
  certificate: r.certificate,
  shownCertificate: r.shown_certificate,
  readAt: r.read_at,
  subscription: { point: r.pull_point, heardAt: r.heard_at },
  makesCameras: r.makes_cameras !== 0
})

/** The devices of a site, or of all that are there. */
export async function listDevices(sql: Sql, site?: string): Promise<DeviceRow[]> {
  return (
    await sql.rows<Raw>(
      `${select} WHERE ${site === undefined ? 'site_id IN (SELECT id FROM site WHERE NOT removed)' : 'site_id = ?'} ORDER BY name, id`,
      site === undefined ? [] : [site]
    )
  ).map(rowOf)
}

/** The outputs that devices have, as they were read last. */
export async function outputsOf(
  sql: Sql,
  devices: ReadonlySet<string>
): Promise<{ device: string; token: string }[]> {
  if (!devices.size) return []
  const rows = await sql.rows<{ id: string; outputs: unknown }>(
    `SELECT id, outputs FROM device WHERE outputs IS NOT NULL AND id IN (${[...devices].map(() => '?').join(', ')})`,
    [...devices]
  )
  return rows.flatMap(({ id, outputs }) =>
    parsedOnce<LinkOutput[]>(outputs).map(({ token }) => ({ device: id, token }))
  )
}

export async function readDevice(sql: Sql, id: string): Promise<DeviceRow> {
  const [row] = await sql.rows<Raw>(`${select} WHERE id = ?`, [id])
  if (!row) throw notFound(said('things.device', id.slice(0, 64)))
  return rowOf(row)
}

export async function insertDevice(
  sql: Sql,
  siteId: string,
  d: Pick<DeviceRow, 'id' | 'camera' | 'name' | 'address' | 'username' | 'sealed' | 'makesCameras'>,
  now: number
): Promise<void> {
  await sql.run(
    "INSERT INTO device (id, site_id, camera_id, name, address, username, password_sealed, makes_cameras, state, added_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, 'unknown', ?)",
    [d.id, siteId, d.camera, d.name, d.address, d.username, d.sealed, d.makesCameras, now]
  )
}

/**
 * Gives devices other addresses, all at once: one may get the address that another one has had. To be called in a
 * transaction. Simulators get other ports at each start; their devices stay the same ones.
 */
export async function moveDevices(
  sql: Sql,
  addresses: Iterable<readonly [id: string, address: string]>
): Promise<void> {
  const all = [...addresses]
  for (const [id, address] of all)
    await sql.run(
      "UPDATE device SET pull_point = NULL, address = CONCAT('moving ', id) WHERE id = ? AND address <> ?",
      [id, address]
    )
  for (const [id, address] of all)
    await sql.run('UPDATE device SET address = ? WHERE id = ?', [address, id])
}

export async function setAccount(
  sql: Sql,
  id: string,
  username: string,
  sealed: Buffer
): Promise<void> {
  await sql.run('UPDATE device SET username = ?, password_sealed = ? WHERE id = ?', [
    username,
    sealed,
    id
  ])
}

/** What has just been read of the device as a whole. */
export async function keepReading(
  sql: Sql,
  id: string,
  {
    information,
    clockAhead,
    inputs,
    outputs,
    storage
  }: Pick<DeviceRow, 'information' | 'clockAhead' | 'inputs' | 'outputs' | 'storage'>,
  state: DeviceState,
  now: number
): Promise<void> {
  await sql.run(
    'UPDATE device SET state = ?, trouble = NULL, information = ?, clock_ahead = ?, inputs = ?, outputs = ?, storage = ?, read_at = ? WHERE id = ?',
    [
      state,
      JSON.stringify(information),
      clockAhead,
      JSON.stringify(inputs),
      JSON.stringify(outputs),
      storage === null ? null : JSON.stringify(storage),
      now,
      id
    ]
  )
}

/** Its outputs, read by themselves. */
export async function keepOutputs(
  sql: Sql,
  id: string,
  outputs: readonly LinkOutput[],
  now: number
): Promise<void> {
  await sql.run('UPDATE device SET outputs = ?, read_at = ? WHERE id = ?', [
    JSON.stringify(outputs),
    now,
    id
  ])
}

/** The certificate that a device is known by from now on. */
export async function keepCertificate(sql: Sql, id: string, certificate: string): Promise<void> {
  await sql.run('UPDATE device SET certificate = ?, shown_certificate = NULL WHERE id = ?', [
    certificate,
    id
  ])
}

/** Another certificate than that, which it has shown. */
export async function keepShownCertificate(sql: Sql, id: string, shown: string): Promise<void> {
  await sql.run('UPDATE device SET shown_certificate = ? WHERE id = ?', [shown, id])
}

/** Where it is listened to, and until when it has been. */
export async function saveSubscription(
  sql: Sql,
  id: string,
  { point, heardAt }: Subscription
): Promise<void> {
  await sql.run('UPDATE device SET pull_point = ?, heard_at = ? WHERE id = ?', [point, heardAt, id])
}

/** It could not be read; what was read before stands. */
export async function keepTrouble(
  sql: Sql,
  id: string,
  state: DeviceState,
  trouble: Said | string
): Promise<void> {
  await sql.run('UPDATE device SET state = ?, trouble = ? WHERE id = ?', [
    state,
    outcomeText(trouble),
    id
  ])
}

export async function removeDevice(sql: Sql, id: string): Promise<void> {
  await sql.run('DELETE FROM device WHERE id = ?', [id])
}

export async function noteTest(sql: Sql, id: string, token: string, now: number): Promise<void> {
  await sql.run('REPLACE INTO output_test (device_id, token, tested_at) VALUES (?, ?, ?)', [
    id,
    token,
    now
  ])
}

/** When outputs were last tested, by device and token. */
export async function listTests(
  sql: Sql
): Promise<{ device: string; token: string; at: number }[]> {
  return sql.rows('SELECT device_id AS device, token, tested_at AS at FROM output_test')
}
