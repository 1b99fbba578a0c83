import { said } from '../../core/messages/said.ts'
import type { FixView } from '../../core/api.ts'
import { ApiError } from '../../core/apiError.ts'
import { findingKey, type QuickFix } from '../../core/readiness/index.ts'
import { readEndpoint, saveEndpoint } from '../actions/queries.ts'
import type { Database, Sql } from '../database.ts'
import { readDetections, saveActions, saveDetection } from '../detections/queries.ts'
import { changeChannel } from '../devices/channelQueries.ts'
import { conflict, notFound } from '../errors.ts'
import type { Author } from '../history/queries.ts'
import type { Readiness } from './service.ts'

/** Somebody may save the same thing just then; the issue is looked at again as often. */
const MAX_TRIES = 10

type Applicable = Extract<QuickFix, { does: 'edit' | 'add' | 'actions' | 'endpoint' | 'door' }>

const isApplicable = (fix: QuickFix): fix is Applicable =>
  ['edit', 'add', 'actions', 'endpoint', 'door'].includes(fix.does)

/**
 * Applies the fix of an issue against what is there now: the version that it changes is read first, then the issue is
 * computed again, and it is saved over exactly that version. What somebody else has saved meanwhile is never written over.
 *
 * @param finding the issue, by its key @returns what takes it back
 * @throws ApiError when there is no such issue any more
 */
export async function applyFix(
  database: Database,
  readiness: Readiness,
  siteId: string,
  { finding, which }: { finding: string; which: 'fix' | 'orElse' },
  author: Author
): Promise<FixView> {
  for (let tries = 1; ; tries++) {
    const known = await find(readiness, siteId, finding, which)
    const version = await versionOf(database, siteId, known)
    const fix = await find(readiness, siteId, finding, which)
    try {
      return await database.transaction((sql) =>
        save(sql, siteId, fix, version, author, Date.now())
      )
    } catch (error) {
      if (!(error instanceof ApiError && error.view.code === 'conflict') || tries >= MAX_TRIES)
        throw error
    }
  }
}

async function find(
  readiness: Readiness,
  siteId: string,
  key: string,
  which: 'fix' | 'orElse'
): Promise<Applicable> {
  const fix = (await readiness.read(siteId)).findings.find((f) => findingKey(f) === key)?.[which]
  if (!fix) throw notFound(said('things.issue'))
  if (!isApplicable(fix)) throw conflict(said('readiness.fixIsCommand'))
  return fix
}

/** The version of what a fix changes; 0: it makes something new. */
async function versionOf(sql: Sql, siteId: string, fix: Applicable): Promise<number> {
  if (fix.does === 'add' || fix.does === 'door') return 0
  if (fix.does === 'endpoint') return (await readEndpoint(sql, siteId, fix.endpoint.id)).version
  const id = fix.does === 'edit' ? fix.detection.id : fix.detection
  const kept = (await readDetections(sql, fix.camera)).find(({ detection }) => detection.id === id)
  if (!kept) throw notFound(said('things.thisDetection'))
  return fix.does === 'edit' ? kept.version : kept.actions.version
}

async function save(
  sql: Sql,
  siteId: string,
  fix: Applicable,
  version: number,
  author: Author,
  now: number
): Promise<FixView> {
  const note = { ...author, label: fix.words }
  switch (fix.does) {
    case 'edit': {
      const before = (await readDetections(sql, fix.camera)).find(
        ({ detection }) => detection.id === fix.detection.id
      )
      const { version: saved } = await saveDetection(
        sql,
        fix.camera,
        fix.detection,
        before?.position ?? 0,
        version,
        note,
        now
      )
      return {
        undo: {
          method: 'PUT',
          path: detectionPath(fix.camera, fix.detection.id),
          body: { detection: before?.detection, position: before?.position, version: saved }
        }
      }
    }
    case 'add': {
      const position = (await readDetections(sql, fix.camera)).length
      const { version: saved } = await saveDetection(
        sql,
        fix.camera,
        fix.detection,
        position,
        0,
        note,
        now
      )
      return {
        undo: {
          method: 'DELETE',
          path: `${detectionPath(fix.camera, fix.detection.id)}?version=${saved}`
        }
      }
    }
    case 'actions': {
      const before = (await readDetections(sql, fix.camera)).find(
        ({ detection }) => detection.id === fix.detection
      )
      const { version: saved } = await saveActions(
        sql,
        fix.camera,
        fix.detection,
        fix.actions,
        version,
        note,
        now
      )
      return {
        undo: {
          method: 'PUT',
          path: `${detectionPath(fix.camera, fix.detection)}/actions`,
          body: { actions: before?.actions.actions, version: saved }
        }
      }
    }
    case 'endpoint': {
      const before = await readEndpoint(sql, siteId, fix.endpoint.id)
      const { version: saved } = await saveEndpoint(sql, siteId, fix.endpoint, version, note, now)
      return {
        undo: {
          method: 'PUT',
          path: `/endpoints/${fix.endpoint.id}`,
          body: { endpoint: before.endpoint, version: saved }
        }
      }
    }
    case 'door': {
      await changeChannel(sql, fix.device, fix.channel, { used: true })
      return {
        undo: {
          method: 'PUT',
          path: `/devices/${encodeURIComponent(fix.device)}/channels/${encodeURIComponent(fix.channel)}`,
          body: { used: false }
        }
      }
    }
  }
}

const detectionPath = (camera: string, id: string): string =>
  `/cameras/${encodeURIComponent(camera)}/detections/${encodeURIComponent(id)}`
