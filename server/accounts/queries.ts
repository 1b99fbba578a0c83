import { said } from '../../core/messages/said.ts'
import type { AccountView, Role, SiteRole } from '../../core/accounts/accounts.ts'
import type { Sql } from '../database.ts'
import { parsed } from '../columns.ts'
import { notFound } from '../errors.ts'

export interface AccountRow {
  id: number
  username: string
  name: string
  role: Role | null
  /** Of single sites, as JSON. */
  sites: string | null
  password: string
}

export const accountColumns = `account.id, username, name, role, password,
  (SELECT JSON_ARRAYAGG(JSON_OBJECT('site', r.site_id, 'role', r.role) ORDER BY r.site_id) FROM site_role r WHERE r.account_id = account.id) AS sites`
export const viewOf = ({ id, username, name, role, sites }: AccountRow): AccountView => ({
  id,
  username,
  name,
  role,
  sites: sites === null ? [] : parsed<SiteRole[]>(sites)
})

export async function listAccounts(sql: Sql): Promise<AccountView[]> {
  return (
    await sql.rows<AccountRow>(`SELECT ${accountColumns} FROM account ORDER BY username`)
  ).map(viewOf)
}

/** All accounts, so that nobody else changes one until the transaction has ended: who is left is counted over all. */
export async function lockAccounts(sql: Sql): Promise<AccountView[]> {
  return (
    await sql.rows<AccountRow>(`SELECT ${accountColumns} FROM account ORDER BY id FOR UPDATE`)
  ).map(viewOf)
}

export async function findByName(
  sql: Sql,
  username: string
): Promise<{ account: AccountView; password: string } | null> {
  const [row] = await sql.rows<AccountRow>(
    `SELECT ${accountColumns} FROM account WHERE username = ?`,
    [username]
  )
  return row ? { account: viewOf(row), password: row.password } : null
}

export async function readAccount(
  sql: Sql,
  id: number
): Promise<{ account: AccountView; password: string }> {
  const [row] = await sql.rows<AccountRow>(`SELECT ${accountColumns} FROM account WHERE id = ?`, [
    id
  ])
  if (!row) throw notFound(said('things.account', id))
  return { account: viewOf(row), password: row.password }
}

export async function insertAccount(
  sql: Sql,
  account: Omit<AccountView, 'id'>,
  password: string,
  now: number
): Promise<number> {
  const { insertId } = await sql.run(
    'INSERT INTO account (username, name, role, password, created_at, password_changed_at) VALUES (?, ?, ?, ?, ?, ?)',
    [account.username, account.name, account.role, password, now, now]
  )
  await saveSiteRoles(sql, insertId, account.sites)
  return insertId
}

async function saveSiteRoles(sql: Sql, id: number, sites: readonly SiteRole[]): Promise<void> {
  await sql.run('DELETE FROM site_role WHERE account_id = ?', [id])
  for (const { site, role } of sites) {
    const there = await sql.rows('SELECT 1 FROM site WHERE id = ?', [site])
    if (!there.length) throw notFound(said('things.siteNamed', site))
    await sql.run('INSERT INTO site_role (account_id, site_id, role) VALUES (?, ?, ?)', [
      id,
      site,
      role
    ])
  }
}

export async function updateAccount(
  sql: Sql,
  id: number,
  { name, role, sites }: Pick<AccountView, 'name' | 'role' | 'sites'>
): Promise<void> {
  await sql.run('UPDATE account SET name = ?, role = ? WHERE id = ?', [name, role, id])
  await saveSiteRoles(sql, id, sites)
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
