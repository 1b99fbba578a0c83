import { probe } from '../../analysis/probe.ts'
import type { EndpointOf } from '../../core/formats/actions.ts'
import type { Clips } from '../clips/service.ts'
import type { Stretch } from '../clips/reported.ts'
import { parsed } from '../columns.ts'
import type { Database } from '../database.ts'
import type { DeviceRecordings } from '../deliveries/deviceRecordings.ts'
import { RECORDING } from '../deliveries/queries.ts'

/** A film of what a camera showed, and when it begins and ends, ms of UTC. */
export interface RecordedFilm extends Stretch {
  path: string
}

interface DeliveryRow {
  id: number
  endpoint: unknown
  fired_at: number
}

/** A recording begins and ends no further than this from its trigger. */
const LONGEST_MS = 10 * 60_000

/** How long a film is; null: it cannot be read, or does not say. */
const secondsOf = (path: string): Promise<number | null> =>
  probe(path, RECORDING.name).then(
    ({ duration }) => duration,
    () => null
  )

/** What was recorded of a camera: clips from its stream, and what its device recorded around alarms. */
export class RecordedFilms {
  private readonly database: Database
  private readonly clips: Clips
  private readonly recordings: DeviceRecordings

  constructor(database: Database, clips: Clips, recordings: DeviceRecordings) {
    this.database = database
    this.clips = clips
    this.recordings = recordings
  }

  /** Those of which something is in a stretch of time; recordings that are still on their device are read from it. */
  async of(camera: string, stretch: Stretch): Promise<RecordedFilm[]> {
    return [
      ...(await this.fromStream(camera, stretch)),
      ...(await this.fromDevice(camera, stretch))
    ]
  }

  private async fromStream(camera: string, { from, to }: Stretch): Promise<RecordedFilm[]> {
    const rows = await this.database.rows<{ id: string; begins: number; ends: number }>(
      "SELECT id, start_at AS begins, start_at + 1000 * frames / fps AS ends FROM clip WHERE camera_id = ? AND recorded AND state = 'ready' HAVING begins < ? AND ends > ? ORDER BY begins",
      [camera, to, from]
    )
    return rows.map(({ id, begins, ends }) => ({
      from: begins,
      to: Number(ends),
      path: this.clips.file(id, 'view.mp4')
    }))
  }

  private async fromDevice(camera: string, { from, to }: Stretch): Promise<RecordedFilm[]> {
    const rows = await this.database.rows<DeliveryRow>(
      `SELECT d.id, d.endpoint, t.fired_at FROM delivery d JOIN fired_trigger t ON t.id = d.trigger_id
        WHERE JSON_VALUE(d.endpoint, '$.kind') = 'recording' AND JSON_EXISTS(d.result, '$.recording')
          AND COALESCE(JSON_VALUE(d.endpoint, '$.camera'), t.camera_id) = ?
          AND t.fired_at BETWEEN ? AND ? ORDER BY t.fired_at`,
      [camera, from - LONGEST_MS, to + LONGEST_MS]
    )
    const films: RecordedFilm[] = []
    for (const { id, endpoint, fired_at: firedAt } of rows) {
      const { beforeSeconds, afterSeconds } = parsed<EndpointOf<'recording'>>(endpoint)
      // A device records for so long after the trigger, and from before it as much as it still has.
      const ends = firedAt + 1000 * afterSeconds
      if (ends <= from || firedAt - 1000 * beforeSeconds >= to) continue
      const path = await this.recordings.read(id)
      const seconds = path && (await secondsOf(path))
      if (seconds) films.push({ from: ends - 1000 * seconds, to: ends, path })
    }
    return films
  }
}
