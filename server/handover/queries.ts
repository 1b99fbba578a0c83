import { createHash } from 'node:crypto'
import type { AcceptedIssue } from '../../core/handover/obstacles.ts'
import type { Signature, SiteRecord } from '../../core/handover/record.ts'
import type { Paper, RecordView, VisitView } from '../../core/handover/views.ts'
import { said } from '../../core/messages/said.ts'
import { parsed } from '../columns.ts'
import type { Sql } from '../database.ts'
import { notFound } from '../errors.ts'
import type { Author } from '../history/queries.ts'

/** Records of a site, their signatures, accepted issues, and the service visit that is going on. */

interface RecordRow {
  id: number
  number: number
  kind: SiteRecord['kind']
  digest: string
  open_count: number
  accepted_count: number
  paper: Paper
  made_at: number
  made_by: string
}

/** A record, and the id of its row. */
export interface StoredRecord {
  id: number
  view: RecordView
}

const columns = 'id, number, kind, digest, open_count, accepted_count, paper, made_at, made_by'

const recordOf = (row: RecordRow, signatures: Signature[]): StoredRecord => ({
  id: row.id,
  view: {
    number: row.number,
    kind: row.kind,
    digest: row.digest,
    open: row.open_count,
    accepted: row.accepted_count,
    paper: row.paper,
    madeAt: row.made_at,
    by: row.made_by,
    signatures
  }
})

interface SignatureRow {
  record_id: number
  digest: string
  role: Signature['role']
  name: string
  strokes: string | null
  signed_at: number
}

async function signaturesOf(sql: Sql, site: string): Promise<Map<number, Signature[]>> {
  const rows = await sql.rows<SignatureRow>(
    `SELECT record_id, s.digest, role, name, strokes, signed_at FROM record_signature AS s
       JOIN handover_record AS r ON r.id = s.record_id WHERE r.site_id = ? ORDER BY s.id`,
    [site]
  )
  const found = new Map<number, Signature[]>()
  for (const row of rows)
    found.set(row.record_id, [
      ...(found.get(row.record_id) ?? []),
      {
        name: row.name,
        role: row.role,
        at: row.signed_at,
        digest: row.digest,
        strokes: row.strokes === null ? null : parsed(row.strokes)
      }
    ])
  return found
}

/** Newest first. */
export async function listRecords(sql: Sql, site: string): Promise<StoredRecord[]> {
  const [rows, signatures] = await Promise.all([
    sql.rows<RecordRow>(
      `SELECT ${columns} FROM handover_record WHERE site_id = ? ORDER BY number DESC`,
      [site]
    ),
    signaturesOf(sql, site)
  ])
  return rows.map((row) => recordOf(row, signatures.get(row.id) ?? []))
}

/** @throws ApiError when there is none of that number */
export async function readRecord(sql: Sql, site: string, number: number): Promise<StoredRecord> {
  const [row] = await sql.rows<RecordRow>(
    `SELECT ${columns} FROM handover_record WHERE site_id = ? AND number = ?`,
    [site, number]
  )
  if (!row) throw notFound(said('things.record', number))
  return recordOf(row, (await signaturesOf(sql, site)).get(row.id) ?? [])
}

export async function nextNumber(sql: Sql, site: string): Promise<number> {
  const [row] = await sql.rows<{ last: number | null }>(
    'SELECT MAX(number) AS last FROM handover_record WHERE site_id = ?',
    [site]
  )
  return (row?.last ?? 0) + 1
}

export async function insertRecord(
  sql: Sql,
  site: string,
  { number, kind, open, accepted, madeAt, madeBy }: SiteRecord,
  digest: string,
  paper: Paper,
  byId: number | null
): Promise<void> {
  await sql.run(
    'INSERT INTO handover_record (site_id, number, kind, digest, open_count, accepted_count, paper, made_at, made_by, made_by_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      site,
      number,
      kind,
      digest,
      open.filter(({ severity }) => severity !== 'hint').length,
      accepted.length,
      paper,
      madeAt,
      madeBy,
      byId
    ]
  )
}

export async function insertSignature(
  sql: Sql,
  record: number,
  { name, role, at, digest, strokes }: Signature,
  { by, byId }: Author
): Promise<void> {
  await sql.run(
    'INSERT INTO record_signature (record_id, digest, role, name, strokes, signed_at, made_by, made_by_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [record, digest, role, name, strokes && JSON.stringify(strokes), at, by, byId]
  )
}

const keyDigest = (key: string): string => createHash('sha256').update(key).digest('hex')

export async function listAccepted(sql: Sql, site: string): Promise<AcceptedIssue[]> {
  return sql.rows<AcceptedIssue>(
    'SELECT finding_key AS `key`, sentence, reason, made_by AS `by`, made_at AS at FROM accepted_issue WHERE site_id = ? ORDER BY made_at, finding_key',
    [site]
  )
}

export async function acceptIssue(
  sql: Sql,
  site: string,
  { key, sentence, reason, by, at }: AcceptedIssue,
  byId: number | null
): Promise<void> {
  await sql.run(
    'REPLACE INTO accepted_issue (site_id, key_digest, finding_key, sentence, reason, made_by, made_by_id, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [site, keyDigest(key), key, sentence, reason, by, byId, at]
  )
}

export async function takeBackAccepted(sql: Sql, site: string, key: string): Promise<void> {
  await sql.run('DELETE FROM accepted_issue WHERE site_id = ? AND key_digest = ?', [
    site,
    keyDigest(key)
  ])
}

export async function readVisit(sql: Sql, site: string): Promise<VisitView | null> {
  const [row] = await sql.rows<{ number: number; started_at: number; made_by: string }>(
    `SELECT r.number, v.started_at, v.made_by FROM service_visit AS v
       JOIN handover_record AS r ON r.id = v.record_id WHERE v.site_id = ?`,
    [site]
  )
  return row ? { record: row.number, startedAt: row.started_at, by: row.made_by } : null
}

export async function startVisit(
  sql: Sql,
  site: string,
  record: number,
  { by, byId }: Author,
  now: number
): Promise<void> {
  await sql.run(
    'INSERT IGNORE INTO service_visit (site_id, record_id, started_at, made_by, made_by_id) VALUES (?, ?, ?, ?, ?)',
    [site, record, now, by, byId]
  )
}

export async function endVisit(sql: Sql, site: string): Promise<void> {
  await sql.run('DELETE FROM service_visit WHERE site_id = ?', [site])
}

/** Walk tests that ended since an instant. */
export async function walkedSince(
  sql: Sql,
  site: string,
  since: number
): Promise<{ passed: number; of: number }> {
  const [row] = await sql.rows<{ passed: string | null; of: number }>(
    `SELECT SUM(r.passed) AS passed, COUNT(*) AS \`of\` FROM proof_result AS r JOIN camera ON camera.id = r.camera_id
      WHERE camera.site_id = ? AND r.made_at >= ? AND JSON_VALUE(r.verdict, '$.check.by.how') = 'person'`,
    [site, since]
  )
  return { passed: Number(row?.passed ?? 0), of: Number(row?.of ?? 0) }
}

/** Who marked gaps in hours as intended, and when: the last edit that did, by camera and detection. */
export async function acceptedGaps(
  sql: Sql,
  site: string
): Promise<Map<string, { by: string; at: number }>> {
  const rows = await sql.rows<{
    camera_id: string
    thing_id: string
    made_by: string
    made_at: number
  }>(
    `SELECT camera_id, thing_id, made_by, made_at FROM edit WHERE site_id = ? AND thing = 'actions' AND body IS NOT NULL
        AND JSON_LENGTH(body, '$.accepted') > 0 ORDER BY id`,
    [site]
  )
  return new Map(
    rows.map((row) => [`${row.camera_id} ${row.thing_id}`, { by: row.made_by, at: row.made_at }])
  )
}
