import { said } from '../../core/messages/said.ts'
import type { AccountView, Role } from '../../core/accounts/accounts.ts'
import type { Sql } from '../database.ts'
import { notFound } from '../errors.ts'

export interface AccountRow {
  id: number
  username: string
  name: string
  role: Role
  person_id: string | null
  password: string
}

const columns = 'id, username, name, role, person_id, password'
export const viewOf = ({
  id,
  username,
  name,
  role,
  person_id: person
}: AccountRow): AccountView => ({ id, username, name, role, person })

export async function listAccounts(sql: Sql): Promise<AccountView[]> {
  return (await sql.rows<AccountRow>(`SELECT ${columns} FROM account ORDER BY username`)).map(
    viewOf
  )
}

/** All accounts, so that nobody else changes one until the transaction has ended: who is left is counted over all. */
export async function lockAccounts(sql: Sql): Promise<AccountView[]> {
  return (await sql.rows<AccountRow>(`SELECT ${columns} FROM account ORDER BY id FOR UPDATE`)).map(
    viewOf
  )
}

export async function findByName(
  sql: Sql,
  username: string
): Promise<{ account: AccountView; password: string } | null> {
  const [row] = await sql.rows<AccountRow>(`SELECT ${columns} FROM account WHERE username = ?`, [
    username
  ])
  return row ? { account: viewOf(row), password: row.password } : null
}

export async function readAccount(
  sql: Sql,
  id: number
): Promise<{ account: AccountView; password: string }> {
  const [row] = await sql.rows<AccountRow>(`SELECT ${columns} FROM account WHERE id = ?`, [id])
  if (!row) throw notFound(said('things.account', id))
  return { account: viewOf(row), password: row.password }
}

export async function insertAccount(
  sql: Sql,
  account: Omit<AccountView, 'id'>,
  password: string,
  now: number
): Promise<number> {
  return (
    await sql.run(
      'INSERT INTO account (username, name, role, person_id, password, created_at, password_changed_at) VALUES (?, ?, ?, ?, ?, ?, ?)',
      [account.username, account.name, account.role, account.person, password, now, now]
    )
  ).insertId
}

export async function updateAccount(
  sql: Sql,
  id: number,
  { name, role, person }: Pick<AccountView, 'name' | 'role' | 'person'>
): Promise<void> {
  await sql.run('UPDATE account SET name = ?, role = ?, person_id = ? WHERE id = ?', [
    name,
    role,
    person,
    id
  ])
}

export async function setPassword(
  sql: Sql,
  id: number,
  password: string,
  now: number
): Promise<void> {
  await sql.run('UPDATE account SET password = ?, password_changed_at = ? WHERE id = ?', [
    password,
    now,
    id
  ])
}

export async function deleteAccount(sql: Sql, id: number): Promise<void> {
  await sql.run('DELETE FROM account WHERE id = ?', [id])
}
