import { said } from '../../core/messages/said.ts'
import { accountAt } from '../../core/accounts/accounts.ts'
import {
  ShiftNoteSchema,
  shiftSince,
  type ShiftCounts,
  type ShiftNote,
  type ShiftView
} from '../../core/watch/shift.ts'
import type { Sessions } from '../accounts/sessions.ts'
import { ACTING, SIGNED_IN, allow, byNumber, type Api } from '../api/route.ts'
import { onlyRow, parsed } from '../columns.ts'
import type { Database, Sql } from '../database.ts'
import { conflict, notFound } from '../errors.ts'
import { authorOf } from '../history/routes.ts'

const aNote = byNumber(said('things.aShiftNote'))

/** Who watches, and what one shift leaves to the next. */
export function shiftRoutes(app: Api, database: Database, sessions: Sessions): void {
  app.get('/shift', allow(SIGNED_IN), async ({ site }): Promise<ShiftView> => {
    const [note, present] = await Promise.all([newestNote(database, site), sessions.present()])
    return {
      signedIn: present.flatMap(({ account, since }) =>
        accountAt(account, site) ? [{ name: account.name, since }] : []
      ),
      note,
      counts: await countShift(database, site, shiftSince(note?.at ?? null, Date.now()))
    }
  })
  app.post('/shift/notes', allow(ACTING, { body: ShiftNoteSchema }), async (request, reply) => {
    const { site, body } = request
    const { by, byId } = authorOf(request)
    await database.transaction(async (sql) => {
      const now = Date.now()
      const before = await newestNote(sql, site)
      const counts = await countShift(sql, site, shiftSince(before?.at ?? null, now))
      await sql.run(
        'INSERT INTO shift_note (site_id, words, counts, made_by, made_by_id, made_at) VALUES (?, ?, ?, ?, ?, ?)',
        [site, body.words, JSON.stringify(counts), by, byId, now]
      )
    })
    return reply.status(201).send(await newestNote(database, site))
  })
  app.post('/shift/notes/:id/read', allow(ACTING, { params: aNote }), async (request) => {
    const { site, params } = request
    const { affectedRows } = await database.run(
      'UPDATE shift_note SET read_by = ?, read_at = ? WHERE id = ? AND site_id = ? AND read_at IS NULL',
      [authorOf(request).by, Date.now(), params.id, site]
    )
    const note = await readNote(database, 'site_id = ? AND id = ?', [site, params.id])
    if (!note) throw notFound(said('things.shiftNote'))
    if (affectedRows !== 1) throw conflict(said('watch.readAlready', note.readBy ?? ''))
    return note
  })
}

const newestNote = (sql: Sql, site: string): Promise<ShiftNote | null> =>
  readNote(sql, 'site_id = ?', [site])

async function readNote(
  sql: Sql,
  which: string,
  of: readonly (string | number)[]
): Promise<ShiftNote | null> {
  const [row] = await sql.rows<Omit<ShiftNote, 'counts'> & { counts: string }>(
    `SELECT id, words, counts, made_by AS \`by\`, made_at AS at, read_by AS readBy, read_at AS readAt FROM shift_note WHERE ${which} ORDER BY id DESC LIMIT 1`,
    [...of]
  )
  return row ? { ...row, counts: parsed<ShiftCounts>(row.counts) } : null
}

async function countShift(sql: Sql, site: string, since: number): Promise<ShiftCounts> {
  const [ofShift, { active }] = await Promise.all([
    sql.rows<Record<'alarms' | 'closed' | 'nuisance', number>>(
      `SELECT COUNT(*) AS alarms, COALESCE(SUM(state = 'closed'), 0) AS closed,
        COALESCE(SUM(EXISTS (SELECT 1 FROM fired_trigger t JOIN mark ON mark.trigger_id = t.id WHERE t.alarm_id = alarm.id AND mark.mark = 'nuisance')), 0) AS nuisance
        FROM alarm WHERE site_id = ? AND last_at >= ?`,
      [site, since]
    ),
    sql
      .rows<{ active: number }>(
        "SELECT COUNT(*) AS active FROM alarm WHERE site_id = ? AND state = 'waiting'",
        [site]
      )
      .then(onlyRow)
  ])
  const { alarms, closed, nuisance } = onlyRow(ofShift)
  return { since, alarms, closed: Number(closed), nuisance: Number(nuisance), active }
}
