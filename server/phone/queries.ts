import type { Check } from '../../core/formats/check.ts'
import type { PhoneLinkView } from '../../core/proving/phone.ts'
import { parsed } from '../columns.ts'
import type { Sql } from '../database.ts'

/** What a phone was let in for. */
export interface PhoneLink {
  id: number
  /** Who made it. */
  account: { id: number; username: string }
  site: string
  camera: string
  check: Check
  expiresAt: number
}

interface NewLink {
  tokenHash: string
  account: number
  camera: string
  check: Check
  now: number
  expiresAt: number
}

/** @returns its number */
export async function insertLink(
  sql: Sql,
  { tokenHash, account, camera, check, now, expiresAt }: NewLink
): Promise<number> {
  const { insertId } = await sql.run(
    'INSERT INTO phone_link (token_hash, account_id, camera_id, body, created_at, expires_at) VALUES (?, ?, ?, ?, ?, ?)',
    [tokenHash, account, camera, JSON.stringify(check), now, expiresAt]
  )
  return insertId
}

/** With their sessions. */
export async function deleteOldLinks(sql: Sql, now: number): Promise<void> {
  await sql.run('DELETE FROM phone_link WHERE expires_at <= ?', [now])
}

export async function listLinks(sql: Sql, camera: string, now: number): Promise<PhoneLinkView[]> {
  const rows = await sql.rows<{
    id: number
    body: string
    name: string
    created_at: number
    expires_at: number
    opened_at: number | null
    address: string | null
    agent: string | null
  }>(
    `SELECT l.id, l.body, account.name, l.created_at, l.expires_at, l.opened_at, session.address, session.agent
      FROM phone_link l JOIN account ON account.id = l.account_id LEFT JOIN session ON session.link_id = l.id
      WHERE l.camera_id = ? AND l.expires_at > ? AND (l.opened_at IS NULL OR session.id IS NOT NULL) ORDER BY l.id DESC`,
    [camera, now]
  )
  return rows.map((r) => ({
    id: r.id,
    name: parsed<Check>(r.body).name,
    by: r.name,
    createdAt: r.created_at,
    expiresAt: r.expires_at,
    opened:
      r.opened_at === null
        ? null
        : { at: r.opened_at, address: r.address ?? '', agent: r.agent ?? '' }
  }))
}

interface LinkRow {
  id: number
  account_id: number
  username: string
  site_id: string
  camera_id: string
  body: string
  expires_at: number
}
const links =
  'SELECT l.id, l.account_id, account.username, camera.site_id, l.camera_id, l.body, l.expires_at FROM phone_link l JOIN account ON account.id = l.account_id JOIN camera ON camera.id = l.camera_id JOIN site ON site.id = camera.site_id AND NOT site.removed'
const linkOf = (r: LinkRow): PhoneLink => ({
  id: r.id,
  account: { id: r.account_id, username: r.username },
  site: r.site_id,
  camera: r.camera_id,
  check: parsed<Check>(r.body),
  expiresAt: r.expires_at
})

/** One that has not ended. */
export async function findLink(sql: Sql, id: number, now: number): Promise<PhoneLink | null> {
  const [row] = await sql.rows<LinkRow>(`${links} WHERE l.id = ? AND l.expires_at > ?`, [id, now])
  return row ? linkOf(row) : null
}

/** Uses a code up. @returns null: it was used, has ended, or never was */
export async function openLink(
  sql: Sql,
  tokenHash: string,
  now: number
): Promise<PhoneLink | null> {
  const { affectedRows } = await sql.run(
    'UPDATE phone_link SET opened_at = ? WHERE token_hash = ? AND opened_at IS NULL AND expires_at > ?',
    [now, tokenHash, now]
  )
  if (affectedRows !== 1) return null
  const [row] = await sql.rows<LinkRow>(`${links} WHERE l.token_hash = ?`, [tokenHash])
  return row ? linkOf(row) : null
}
