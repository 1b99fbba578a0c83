import type { AccountView, SessionView } from '../../core/accounts/accounts.ts'
import type { Sql } from '../database.ts'
import { accountColumns, viewOf, type AccountRow } from './queries.ts'

interface NewSession {
  tokenHash: string
  account: number
  now: number
  expires: number
  address: string
  agent: string
  link: number | null
}

/** Not over: the longest it may last, and how long it may not be used. A phone in a pocket stays in until its hour ends. */
const GOING = 'session.expires_at > ? AND (session.used_at > ? OR session.link_id IS NOT NULL)'

export async function insertSession(
  sql: Sql,
  { tokenHash, account, now, expires, address, agent, link }: NewSession
): Promise<void> {
  await sql.run(
    'INSERT INTO session (token_hash, account_id, created_at, used_at, expires_at, address, agent, link_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [tokenHash, account, now, now, expires, address, agent, link]
  )
}

/** @param usedAfter one that was not used since then has ended */
export async function findSession(
  sql: Sql,
  tokenHash: string,
  now: number,
  usedAfter: number
): Promise<{ id: number; account: AccountView; expires: number; link: number | null } | null> {
  const [row] = await sql.rows<
    AccountRow & { session: number; expires_at: number; link_id: number | null }
  >(
    `SELECT session.id AS session, expires_at, link_id, ${accountColumns} FROM session JOIN account ON account.id = session.account_id WHERE token_hash = ? AND ${GOING}`,
    [tokenHash, now, usedAfter]
  )
  return row
    ? { id: row.session, account: viewOf(row), expires: row.expires_at, link: row.link_id }
    : null
}

export async function noteSessionUsed(sql: Sql, id: number, now: number): Promise<void> {
  await sql.run('UPDATE session SET used_at = GREATEST(used_at, ?) WHERE id = ?', [now, id])
}

/** Sessions that go on: one, or all of an account, the newest first. */
export async function readSessions(
  sql: Sql,
  which: { session: number } | { account: number },
  now: number,
  usedAfter: number
): Promise<SessionView[]> {
  const [column, value] = 'session' in which ? ['id', which.session] : ['account_id', which.account]
  const rows = await sql.rows<{
    id: number
    created_at: number
    used_at: number
    expires_at: number
    address: string
    agent: string
    walk: string | null
  }>(
    `SELECT session.id, session.created_at, used_at, session.expires_at, address, agent, camera.name AS walk
      FROM session LEFT JOIN phone_link ON phone_link.id = link_id LEFT JOIN camera ON camera.id = camera_id
      WHERE session.${column} = ? AND ${GOING} ORDER BY session.id DESC`,
    [value, now, usedAfter]
  )
  return rows.map((r) => ({
    id: r.id,
    createdAt: r.created_at,
    usedAt: r.used_at,
    expiresAt: r.expires_at,
    address: r.address,
    agent: r.agent,
    walk: r.walk
  }))
}

/** Who was signed in and used it since then, by name. */
export async function readPresent(
  sql: Sql,
  now: number,
  usedAfter: number
): Promise<{ account: AccountView; since: number }[]> {
  const rows = await sql.rows<AccountRow & { since: number }>(
    `SELECT ${accountColumns}, MIN(session.created_at) AS since FROM session JOIN account ON account.id = session.account_id
      WHERE link_id IS NULL AND expires_at > ? AND used_at > ? GROUP BY account.id ORDER BY name`,
    [now, usedAfter]
  )
  return rows.map((r) => ({ account: viewOf(r), since: r.since }))
}

/** @returns whether there was one */
export async function endSession(sql: Sql, account: number, id: number): Promise<boolean> {
  return (
    (await sql.run('DELETE FROM session WHERE account_id = ? AND id = ?', [account, id]))
      .affectedRows === 1
  )
}

/** @returns the session that has ended; null: there was none */
export async function endSessionOfLink(sql: Sql, link: number): Promise<number | null> {
  const [row] = await sql.rows<{ id: number }>('SELECT id FROM session WHERE link_id = ?', [link])
  await sql.run('DELETE FROM session WHERE link_id = ?', [link])
  return row?.id ?? null
}

/** All of an account's but one. */
export async function endSessionsOf(sql: Sql, account: number, but: number | null): Promise<void> {
  await sql.run('DELETE FROM session WHERE account_id = ? AND id <> ?', [account, but ?? 0])
}

export async function endOldSessions(sql: Sql, now: number, usedBefore: number): Promise<void> {
  await sql.run('DELETE FROM session WHERE expires_at <= ? OR (used_at <= ? AND link_id IS NULL)', [
    now,
    usedBefore
  ])
}
