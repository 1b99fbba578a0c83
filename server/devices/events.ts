import type { DeviceEventView } from '../../core/devices/views.ts'
import type { Sql } from '../database.ts'
import { parsed } from '../columns.ts'
import type { DeviceEvent } from './link/events.ts'

/** Keeps what came at one go, in the order in which it came. */
export async function insertEvents(
  sql: Sql,
  events: readonly { device: string; event: DeviceEvent }[],
  receivedAt: number
): Promise<void> {
  if (!events.length) return
  await sql.run(
    `INSERT INTO device_event (device_id, topic, rule, data, device_at, received_at) VALUES ${events.map(() => '(?, ?, ?, ?, ?, ?)').join(', ')}`,
    events.flatMap(({ device, event: e }) => [
      device,
      e.topic.slice(0, 160),
      e.rule.slice(0, 80),
      JSON.stringify(e.data),
      Number.isFinite(e.at) ? e.at : receivedAt,
      receivedAt
    ])
  )
}

/** The newest events of a device, newest first. */
export async function latestEvents(
  sql: Sql,
  deviceId: string,
  most = 20
): Promise<DeviceEventView[]> {
  const rows = await sql.rows<{
    id: number
    topic: string
    rule: string
    data: unknown
    device_at: number
    received_at: number
  }>(
    `SELECT id, topic, rule, data, device_at, received_at FROM device_event WHERE device_id = ? ORDER BY id DESC LIMIT ${Math.floor(most)}`,
    [deviceId]
  )
  return rows.map((r) => ({
    id: r.id,
    topic: r.topic,
    rule: r.rule,
    data: parsed<Record<string, string>>(r.data),
    deviceAt: r.device_at,
    receivedAt: r.received_at
  }))
}
