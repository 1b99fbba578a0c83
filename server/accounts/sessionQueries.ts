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
}

export async function insertSession(
  sql: Sql,
  { tokenHash, account, now, expires, address, agent }: NewSession
): Promise<void> {
  await sql.run(
    'INSERT INTO session (token_hash, account_id, created_at, used_at, expires_at, address, agent) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [tokenHash, account, now, now, expires, address, agent]
  )
}

/** @param usedAfter one that was not used since then has ended */
export async function findSession(
  sql: Sql,
  tokenHash: string,
  now: number,
  usedAfter: number
): Promise<{ id: number; account: AccountView; expires: number } | null> {
  const [row] = await sql.rows<AccountRow & { session: number; expires_at: number }>(
    `SELECT session.id AS session, expires_at, ${accountColumns} FROM session JOIN account ON account.id = session.account_id WHERE token_hash = ? AND expires_at > ? AND used_at > ?`,
    [tokenHash, now, usedAfter]
  )
  return row ? { id: row.session, account: viewOf(row), expires: row.expires_at } : null
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
  }>(
    `SELECT id, created_at, used_at, expires_at, address, agent FROM session WHERE ${column} = ? AND expires_at > ? AND used_at > ? ORDER BY id DESC`,
    [value, now, usedAfter]
  )
  return rows.map((r) => ({
    id: r.id,
    createdAt: r.created_at,
    usedAt: r.used_at,
    expiresAt: r.expires_at,
    address: r.address,
    agent: r.agent
  }))
}

/** @returns whether there was one */
export async function endSession(sql: Sql, account: number, id: number): Promise<boolean> {
  return (
    (await sql.run('DELETE FROM session WHERE account_id = ? AND id = ?', [account, id]))
      .affectedRows === 1
  )
}

/** All of an account's but one. */
export async function endSessionsOf(sql: Sql, account: number, but: number | null): Promise<void> {
  await sql.run('DELETE FROM session WHERE account_id = ? AND id <> ?', [account, but ?? 0])
}

export async function endOldSessions(sql: Sql, now: number, usedBefore: number): Promise<void> {
  await sql.run('DELETE FROM session WHERE expires_at <= ? OR used_at <= ?', [now, usedBefore])
}
