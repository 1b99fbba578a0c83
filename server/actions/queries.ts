import { said, saidOf, type Said } from '../../core/messages/said.ts'
import type { SavedEndpoint, SiteActionsView, VoiceView } from '../../core/api.ts'
import type { Actions, Endpoint, Mail, People } from '../../core/formats/actions.ts'
import {
  DEFAULT_LOOK_BACK,
  type LookBackSettings,
  type LookBackSettingsView
} from '../../core/lookBack/settings.ts'
import { DEFAULT_RETENTION, type Retention, type RetentionView } from '../../core/retention.ts'
import type { Sql } from '../database.ts'
import { deleteVersion, writeVersion } from '../versioned.ts'
import { versionConflict, notFound } from '../errors.ts'
import { noteEdit, type EditNote } from '../history/queries.ts'
import { outcomeText, parsedOnce } from '../columns.ts'

interface EndpointRow {
  id: string
  body: string
  version: number
  changed_at: number
  deleted: number
  tested_at: number | null
  test_error: string | null
}

const select = 'SELECT id, body, version, changed_at, deleted, tested_at, test_error FROM endpoint'
const keptOf = (row: EndpointRow): SavedEndpoint => ({
  endpoint: parsedOnce<Endpoint>(row.body),
  version: row.version,
  changedAt: row.changed_at,
  testedAt: row.tested_at,
  testError: row.test_error === null ? null : saidOf(row.test_error)
})

export async function readEndpoints(sql: Sql, siteId: string): Promise<SavedEndpoint[]> {
  return (
    await sql.rows<EndpointRow>(`${select} WHERE site_id = ? AND NOT deleted ORDER BY id`, [siteId])
  ).map(keptOf)
}

export async function readEndpoint(sql: Sql, siteId: string, id: string): Promise<SavedEndpoint> {
  const [row] = await sql.rows<EndpointRow>(
    `${select} WHERE site_id = ? AND id = ? AND NOT deleted`,
    [siteId, id]
  )
  if (!row) throw notFound(said('things.actionsOf', id.slice(0, 64)))
  return keptOf(row)
}

async function refuse(sql: Sql, siteId: string, id: string, name: string): Promise<never> {
  const [row] = await sql.rows<EndpointRow>(`${select} WHERE site_id = ? AND id = ?`, [siteId, id])
  if (!row) throw notFound(name)
  throw versionConflict(
    name,
    row.deleted ? { deleted: true, version: row.version, changedAt: row.changed_at } : keptOf(row)
  )
}

/**
 * Saves over exactly the version named; 0 makes a new one; a deleted one comes back. A test of
 * other settings counts no more.
 */
export async function saveEndpoint(
  sql: Sql,
  siteId: string,
  endpoint: Endpoint,
  version: number,
  note: EditNote,
  now: number
): Promise<SavedEndpoint> {
  const isWritten = await writeVersion(
    sql,
    'endpoint',
    { site_id: siteId, id: endpoint.id },
    { body: JSON.stringify(endpoint), deleted: false, tested_at: null, test_error: null },
    version,
    now
  )
  if (!isWritten) return refuse(sql, siteId, endpoint.id, endpoint.name)
  await noteEdit(sql, siteId, null, 'endpoint', endpoint.id, endpoint, note, now)
  return readEndpoint(sql, siteId, endpoint.id)
}

export async function deleteEndpoint(
  sql: Sql,
  siteId: string,
  id: string,
  version: number,
  note: EditNote,
  now: number
): Promise<{ version: number }> {
  const isDeleted = await deleteVersion(sql, 'endpoint', { site_id: siteId, id }, version, now)
  if (!isDeleted) return refuse(sql, siteId, id, id)
  await noteEdit(sql, siteId, null, 'endpoint', id, null, note, now)
  return { version: version + 1 }
}

export async function noteEndpointTest(
  sql: Sql,
  siteId: string,
  id: string,
  error: Said | string | null,
  now: number
): Promise<void> {
  await sql.run('UPDATE endpoint SET tested_at = ?, test_error = ? WHERE site_id = ? AND id = ?', [
    now,
    error === null ? null : outcomeText(error),
    siteId,
    id
  ])
}

type SettingName = 'mail' | 'people' | 'usual' | 'retention' | 'lookBack'
interface SettingRow {
  name: SettingName
  body: unknown
  sealed: Buffer | null
  version: number
  changed_at: number
}

/** What is said of a site as a whole. */
export interface SiteSettings extends Pick<SiteActionsView, 'mail' | 'people' | 'usual'> {
  retention: Pick<RetentionView, 'retention' | 'version' | 'changedAt'>
  lookBack: Pick<LookBackSettingsView, 'lookBack' | 'version' | 'changedAt'>
  /** The mail server's password, sealed. */
  sealed: Buffer | null
}

export async function readSettings(sql: Sql, siteId: string): Promise<SiteSettings> {
  const rows = await sql.rows<SettingRow>(
    'SELECT name, body, sealed, version, changed_at FROM site_setting WHERE site_id = ?',
    [siteId]
  )
  const find = (name: SettingName): SettingRow | undefined => rows.find((row) => row.name === name)
  const kept = (row: SettingRow | undefined) => ({
    version: row?.version ?? 0,
    changedAt: row?.changed_at ?? 0
  })
  const body = <T>(row: SettingRow | undefined): T | null =>
    row ? parsedOnce<{ value: T | null }>(row.body).value : null
  const [mail, people, usual, retention, lookBack] = [
    find('mail'),
    find('people'),
    find('usual'),
    find('retention'),
    find('lookBack')
  ]
  return {
    mail: { mail: body<Mail>(mail), hasPassword: mail?.sealed != null, ...kept(mail) },
    people: { people: body<People>(people) ?? { people: [], groups: [] }, ...kept(people) },
    usual: { actions: body<Actions>(usual), ...kept(usual) },
    retention: { retention: body<Retention>(retention) ?? DEFAULT_RETENTION, ...kept(retention) },
    lookBack: {
      lookBack: body<LookBackSettings>(lookBack) ?? DEFAULT_LOOK_BACK,
      ...kept(lookBack)
    },
    sealed: mail?.sealed ?? null
  }
}

/** @param sealed undefined: what is there stays */
export async function saveSetting(
  sql: Sql,
  siteId: string,
  name: SettingName,
  value: unknown,
  version: number,
  note: EditNote,
  now: number,
  sealed?: Buffer | null
): Promise<SiteSettings> {
  const isWritten = await writeVersion(
    sql,
    'site_setting',
    { site_id: siteId, name },
    { body: JSON.stringify({ value }), ...(sealed !== undefined && { sealed }) },
    version,
    now
  )
  const settings = await readSettings(sql, siteId)
  if (!isWritten)
    throw versionConflict(
      {
        mail: said('things.mailServer'),
        people: said('things.people'),
        usual: said('things.defaultActions'),
        retention: said('things.retention'),
        lookBack: said('things.lookBack')
      }[name],
      settings[name]
    )
  await noteEdit(sql, siteId, null, 'setting', name, value, note, now)
  return settings
}

export async function listVoices(sql: Sql, siteId: string): Promise<VoiceView[]> {
  return sql.rows(
    'SELECT id, name, seconds, LENGTH(content) AS bytes FROM voice_file WHERE site_id = ? ORDER BY added_at, id',
    [siteId]
  )
}

export async function readVoice(sql: Sql, siteId: string, id: string): Promise<Buffer> {
  const [row] = await sql.rows<{ content: Buffer }>(
    'SELECT content FROM voice_file WHERE site_id = ? AND id = ?',
    [siteId, id]
  )
  if (!row) throw notFound(said('things.voiceFile', id.slice(0, 64)))
  return row.content
}

export async function insertVoice(
  sql: Sql,
  siteId: string,
  voice: Omit<VoiceView, 'bytes'> & { content: Buffer },
  now: number
): Promise<void> {
  await sql.run(
    'INSERT INTO voice_file (site_id, id, name, content, seconds, added_at) VALUES (?, ?, ?, ?, ?, ?)',
    [siteId, voice.id, voice.name, voice.content, voice.seconds, now]
  )
}
