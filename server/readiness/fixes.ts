import type { FixView } from '../../core/api.ts'
import { ApiError } from '../../core/apiError.ts'
import { findingKey, type Mend } from '../../core/readiness/index.ts'
import { readEndpoint, saveEndpoint } from '../actions/rows.ts'
import type { Database, Sql } from '../database.ts'
import { readDetections, saveActions, saveDetection } from '../detections/rows.ts'
import { changeChannel } from '../devices/channels.ts'
import { busy, notFound } from '../errors.ts'
import type { Author } from '../history/rows.ts'
import { readSite } from '../sites/rows.ts'
import type { Readiness } from './readiness.ts'

/** Somebody may save the same thing just then; the issue is looked at again as often. */
const MAX_TRIES = 10

type Applicable = Extract<Mend, { does: 'edit' | 'add' | 'actions' | 'endpoint' | 'door' }>

const isApplicable = (mend: Mend): mend is Applicable =>
  ['edit', 'add', 'actions', 'endpoint', 'door'].includes(mend.does)

/**
 * Applies the fix of an issue against what is there now: the version that it changes is read first, then the issue is
 * computed anew, and it is saved over exactly that version. What somebody else has saved meanwhile is never written over.
 *
 * @param finding the issue, by its key @returns what takes it back
 * @throws ApiError when there is no such issue any more
 */
export async function applyFix(
  database: Database,
  readiness: Readiness,
  { finding, fix }: { finding: string; fix: 'mend' | 'orElse' },
  author: Author
): Promise<FixView> {
  for (let tries = 1; ; tries++) {
    const known = await find(readiness, finding, fix)
    const site = (await readSite(database))!
    const version = await versionOf(database, site.id, known)
    const mend = await find(readiness, finding, fix)
    try {
      return await database.transaction((sql) =>
        save(sql, site.id, mend, version, author, Date.now())
      )
    } catch (error) {
      if (!(error instanceof ApiError && error.view.code === 'conflict') || tries >= MAX_TRIES)
        throw error
    }
  }
}

async function find(
  readiness: Readiness,
  key: string,
  fix: 'mend' | 'orElse'
): Promise<Applicable> {
  const mend = (await readiness.read()).findings.find((f) => findingKey(f) === key)?.[fix]
  if (!mend) throw notFound('this issue')
  if (!isApplicable(mend))
    throw busy('This fix is a command of its own; it changes nothing of the plan.')
  return mend
}

/** The version of what a mend changes; 0: it makes something new. */
async function versionOf(sql: Sql, siteId: string, mend: Applicable): Promise<number> {
  if (mend.does === 'add' || mend.does === 'door') return 0
  if (mend.does === 'endpoint') return (await readEndpoint(sql, siteId, mend.endpoint.id)).version
  const id = mend.does === 'edit' ? mend.detection.id : mend.detection
  const kept = (await readDetections(sql, mend.camera)).find(({ detection }) => detection.id === id)
  if (!kept) throw notFound('this detection')
  return mend.does === 'edit' ? kept.version : kept.actions.version
}

async function save(
  sql: Sql,
  siteId: string,
  mend: Applicable,
  version: number,
  author: Author,
  now: number
): Promise<FixView> {
  const note = { ...author, label: mend.words }
  switch (mend.does) {
    case 'edit': {
      const before = (await readDetections(sql, mend.camera)).find(
        ({ detection }) => detection.id === mend.detection.id
      )
      const { version: saved } = await saveDetection(
        sql,
        mend.camera,
        mend.detection,
        before?.position ?? 0,
        version,
        note,
        now
      )
      return {
        undo: {
          method: 'PUT',
          path: detectionPath(mend.camera, mend.detection.id),
          body: { detection: before?.detection, position: before?.position, version: saved }
        }
      }
    }
    case 'add': {
      const position = (await readDetections(sql, mend.camera)).length
      const { version: saved } = await saveDetection(
        sql,
        mend.camera,
        mend.detection,
        position,
        0,
        note,
        now
      )
      return {
        undo: {
          method: 'DELETE',
          path: `${detectionPath(mend.camera, mend.detection.id)}?version=${saved}`
        }
      }
    }
    case 'actions': {
      const before = (await readDetections(sql, mend.camera)).find(
        ({ detection }) => detection.id === mend.detection
      )
      const { version: saved } = await saveActions(
        sql,
        mend.camera,
        mend.detection,
        mend.actions,
        version,
        note,
        now
      )
      return {
        undo: {
          method: 'PUT',
          path: `${detectionPath(mend.camera, mend.detection)}/actions`,
          body: { actions: before?.actions.actions, version: saved }
        }
      }
    }
    case 'endpoint': {
      const before = await readEndpoint(sql, siteId, mend.endpoint.id)
      const { version: saved } = await saveEndpoint(sql, siteId, mend.endpoint, version, note, now)
      return {
        undo: {
          method: 'PUT',
          path: `/api/endpoints/${mend.endpoint.id}`,
          body: { endpoint: before.endpoint, version: saved }
        }
      }
    }
    case 'door': {
      await changeChannel(sql, mend.device, mend.channel, { used: true })
      return {
        undo: {
          method: 'PUT',
          path: `/api/devices/${encodeURIComponent(mend.device)}/channels/${encodeURIComponent(mend.channel)}`,
          body: { used: false }
        }
      }
    }
  }
}

const detectionPath = (camera: string, id: string): string =>
  `/api/cameras/${encodeURIComponent(camera)}/detections/${encodeURIComponent(id)}`
