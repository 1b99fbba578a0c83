import { mkdir, readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Trigger } from '../../core/detections/index.ts'
import type { Detection } from '../../core/formats/plan.ts'
import type { Database } from '../database.ts'
import type { Pictures } from '../deliveries/pictures.ts'
import type { DueTrigger } from '../deliveries/rows.ts'
import { notFound } from '../errors.ts'
import { parsed } from '../sites/rows.ts'

/** A live picture is asked for when it is surely there: devices keep the last seconds. */
const AFTER_MS = 600
/** More than these at a time are left out: a device that is flooded is not asked for pictures as well. */
const MOST_WAITING = 60

interface Row {
  id: number
  run_id: string | null
  clip_id: string | null
  camera_id: string
  kind: Trigger['kind']
  target: number | null
  frame: number | null
  clip_seconds: number | null
  direction: Trigger['direction'] | null
  cause: Trigger['cause'] | null
  severity: Trigger['severity'] | null
  fired_at: number
  fired_with: unknown
}

/** Keeps the picture of each live trigger's moment; of a clip's trigger it is taken from the clip when it is asked for. */
export class Evidence {
  private readonly database: Database
  private readonly pictures: Pictures
  private readonly folder: string
  private readonly log: (error: unknown) => void
  private readonly waiting = new Set<NodeJS.Timeout>()

  constructor(database: Database, pictures: Pictures, folder: string, log: (error: unknown) => void) {
    this.database = database
    this.pictures = pictures
    this.folder = folder
    this.log = log
  }

  /** A trigger has been taken. */
  note({ trigger }: { trigger?: number }): void {
    if (trigger === undefined || this.waiting.size >= MOST_WAITING) return
    const timer = setTimeout(() => {
      this.waiting.delete(timer)
      this.keep(trigger).catch(this.log)
    }, AFTER_MS)
    this.waiting.add(timer)
  }

  close(): void {
    for (const timer of this.waiting) clearTimeout(timer)
  }

  private async keep(id: number): Promise<void> {
    const row = await this.row(id)
    if (!row || row.run_id !== null) return
    // A camera that no device shows has no picture; that is said where it is asked for.
    const { pictures } = await this.pictures.around(dueOf(row), row.camera_id, 0, 0, 1).catch(() => ({ pictures: [] }))
    if (!pictures.length) return
    await mkdir(this.folder, { recursive: true })
    await writeFile(join(this.folder, `${id}.jpg`), pictures[0].jpeg)
  }

  /** The picture of a trigger's moment, as JPEG. @throws ApiError when there is none */
  async picture(id: number): Promise<Buffer> {
    const row = await this.row(id)
    if (!row) throw notFound(`trigger ${id}`)
    if (row.run_id === null)
      return readFile(join(this.folder, `${id}.jpg`)).catch(() => {
        throw notFound('a picture of this trigger')
      })
    const { pictures } = await this.pictures.around(dueOf(row), row.camera_id, 0, 0, 1)
    if (!pictures.length) throw notFound('a picture of this trigger')
    return pictures[0].jpeg
  }

  private async row(id: number): Promise<Row | null> {
    const [row] = await this.database.rows<Row>('SELECT t.id, t.run_id, run.clip_id, t.camera_id, t.kind, t.target, t.frame, t.clip_seconds, t.direction, t.cause, t.severity, t.fired_at, t.fired_with FROM fired_trigger t LEFT JOIN run ON run.id = t.run_id WHERE t.id = ?', [id])
    return row ?? null
  }
}

const dueOf = (row: Row): DueTrigger => ({
  detection: parsed<Detection>(row.fired_with),
  kind: row.kind,
  firedAt: row.fired_at,
  ...(row.target !== null && { target: row.target }),
  ...(row.direction && { direction: row.direction }),
  ...(row.cause && { cause: row.cause }),
  ...(row.severity && { severity: row.severity }),
  clip: row.clip_id === null || row.frame === null || row.clip_seconds === null ? null : { id: row.clip_id, frame: row.frame, time: row.clip_seconds }
})
