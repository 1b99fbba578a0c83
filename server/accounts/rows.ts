import type { AccountView, Role } from '../../core/accounts/accounts.ts'
import type { Sql } from '../database.ts'
import { notFound } from '../errors.ts'

interface Row {
  id: number
  username: string
  name: string
  role: Role
  person_id: string | null
  password: string
}

const columns = 'id, username, name, role, person_id, password'
const viewOf = ({ id, username, name, role, person_id: person }: Row): AccountView => ({ id, username, name, role, person })

export async function listAccounts(sql: Sql): Promise<AccountView[]> {
  return (await sql.rows<Row>(`SELECT ${columns} FROM account ORDER BY username`)).map(viewOf)
}

export async function findByName(sql: Sql, username: string): Promise<{ account: AccountView; password: string } | null> {
  const [row] = await sql.rows<Row>(`SELECT ${columns} FROM account WHERE username = ?`, [username])
  return row ? { account: viewOf(row), password: row.password } : null
}

export async function readAccount(sql: Sql, id: number): Promise<{ account: AccountView; password: string }> {
  const [row] = await sql.rows<Row>(`SELECT ${columns} FROM account WHERE id = ?`, [id])
  if (!row) throw notFound(`account ${id}`)
  return { account: viewOf(row), password: row.password }
}

export async function insertAccount(sql: Sql, account: Omit<AccountView, 'id'>, password: string, now: number): Promise<number> {
  return (await sql.run('INSERT INTO account (username, name, role, person_id, password, created_at) VALUES (?, ?, ?, ?, ?, ?)', [account.username, account.name, account.role, account.person, password, now])).insertId
}

export async function updateAccount(sql: Sql, id: number, { name, role, person }: Pick<AccountView, 'name' | 'role' | 'person'>, password: string | null): Promise<void> {
  await sql.run('UPDATE account SET name = ?, role = ?, person_id = ?, password = COALESCE(?, password) WHERE id = ?', [name, role, person, password, id])
}

export async function deleteAccount(sql: Sql, id: number): Promise<void> {
  await sql.run('DELETE FROM account WHERE id = ?', [id])
}

export async function insertSession(sql: Sql, tokenHash: string, account: number, now: number, expires: number): Promise<void> {
  await sql.run('INSERT INTO session (token_hash, account_id, created_at, expires_at) VALUES (?, ?, ?, ?)', [tokenHash, account, now, expires])
}

export async function findSession(sql: Sql, tokenHash: string, now: number): Promise<{ account: AccountView; expires: number } | null> {
  const [row] = await sql.rows<Row & { expires_at: number }>('SELECT account.id, username, name, role, person_id, password, expires_at FROM session JOIN account ON account.id = session.account_id WHERE token_hash = ? AND expires_at > ?', [tokenHash, now])
  return row ? { account: viewOf(row), expires: row.expires_at } : null
}

export async function prolongSession(sql: Sql, tokenHash: string, expires: number): Promise<void> {
  await sql.run('UPDATE session SET expires_at = ? WHERE token_hash = ?', [expires, tokenHash])
}

export async function endSession(sql: Sql, tokenHash: string): Promise<void> {
  await sql.run('DELETE FROM session WHERE token_hash = ?', [tokenHash])
}

/** All of an account's but one. */
export async function endSessionsOf(sql: Sql, account: number, but: string | null): Promise<void> {
  await sql.run('DELETE FROM session WHERE account_id = ? AND token_hash <> ?', [account, but ?? ''])
}

export async function endOldSessions(sql: Sql, now: number): Promise<void> {
  await sql.run('DELETE FROM session WHERE expires_at <= ?', [now])
}
