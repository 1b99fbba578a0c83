import { createHash } from 'node:crypto'
import { mkdir, readFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import { getPosition } from 'suncalc'
import { pictureAt } from '../../analysis/pictures.ts'
import type { ClipView } from '../../core/api.ts'
import type { CheckRecord, RecordPicture } from '../../core/handover/record.ts'
import { saidOfError } from '../../core/errors.ts'
import { said, type Said } from '../../core/messages/said.ts'
import type { SiteArchive } from '../../core/sites/archive.ts'
import type { Clips } from '../clips/service.ts'
import type { Database } from '../database.ts'
import type { Devices } from '../devices/service.ts'
import { writeWhole } from '../files.ts'
import type { Proving } from '../proving/service.ts'

/** The pictures of a record: what each camera shows, by day and by night, and what proves each detection. */

/** Pixels: enough for a page, small enough for a mail. */
const MAX_WIDTH = 1280
const QUALITY = 82
/** Seconds into a clip. */
const PICTURE_AT = 10

export interface PictureSources {
  database: Database
  clips: Clips
  devices: Devices
  proving: Proving
}

export interface CameraPicture {
  picture: RecordPicture | null
  night: RecordPicture | null
  /** Why there is none. */
  missing: Said | string | null
  width: number | null
  height: number | null
}

/** Writes a file beside a record. @param file from the folder of the record */
async function keepFile(
  folder: string,
  file: string,
  content: Uint8Array
): Promise<{ file: string; sha256: string }> {
  await mkdir(dirname(join(folder, file)), { recursive: true })
  await writeWhole(join(folder, file), content)
  return { file, sha256: createHash('sha256').update(content).digest('hex') }
}

async function small(picture: Buffer): Promise<{ jpeg: Buffer; width: number; height: number }> {
  const image = await loadImage(picture)
  const scale = Math.min(1, MAX_WIDTH / image.width)
  const [width, height] = [Math.round(image.width * scale), Math.round(image.height * scale)]
  const canvas = createCanvas(width, height)
  canvas.getContext('2d').drawImage(image, 0, 0, width, height)
  return { jpeg: canvas.toBuffer('image/jpeg', QUALITY), width, height }
}

/** Clips begin at an instant; where the site's position is known, the sun tells which are of the night. */
function isOfNight({ start }: ClipView, { site: { position } }: SiteArchive): boolean {
  return (
    position !== null &&
    getPosition(new Date(start), position.latitude, position.longitude).altitude < 0
  )
}

/**
 * What a camera shows now, or, where no device shows it, its newest clip; besides, its newest clip of a night.
 *
 * @param ready the clips of the site that are ready
 */
export async function cameraPicture(
  { clips, devices }: PictureSources,
  camera: string,
  ready: readonly ClipView[],
  site: SiteArchive,
  folder: string,
  now: number
): Promise<CameraPicture> {
  const own = ready
    // A clip of reports has a picture of another time.
    .filter((clip) => clip.camera === camera && !clip.reported)
    .sort((a, b) => b.start - a.start || a.id.localeCompare(b.id))
  const ofClip = async (clip: ClipView): Promise<Buffer> =>
    pictureAt(clips.file(clip.id, 'view.mp4'), PICTURE_AT)
  const found: CameraPicture = {
    picture: null,
    night: null,
    missing: null,
    width: null,
    height: null
  }
  const keep = async (picture: Buffer, name: string, at: number): Promise<RecordPicture> => {
    const { jpeg, width, height } = await small(picture)
    if (name === 'day') Object.assign(found, { width, height })
    return { ...(await keepFile(folder, `pictures/${camera}-${name}.jpg`, jpeg)), at }
  }
  try {
    const picture = await devices.pictureNow(camera)
    if (picture) found.picture = await keep(picture, 'day', now)
  } catch (error) {
    found.missing = saidOfError(error)
  }
  try {
    const [newest] = [...own.filter((clip) => !isOfNight(clip, site)), ...own]
    if (!found.picture && newest)
      found.picture = await keep(
        await ofClip(newest),
        'day',
        newest.start + Math.min(PICTURE_AT, newest.frames / newest.fps) * 1000
      )
    const night = own.find((clip) => isOfNight(clip, site))
    if (night && night !== newest)
      found.night = await keep(await ofClip(night), 'night', night.start + PICTURE_AT * 1000)
  } catch (error) {
    found.missing = saidOfError(error)
  }
  if (found.picture) found.missing = null
  else found.missing ??= said('handover.noPictureSource')
  return found
}

/** Which check shows best that a detection works: walked before filmed before simulated. */
const WAYS: readonly CheckRecord['by'][] = ['person', 'clip', 'walk']

export function bestProof(checks: readonly CheckRecord[]): CheckRecord[] {
  const worth = (c: CheckRecord): number => WAYS.indexOf(c.by)
  return checks
    .filter((c) => c.expects === 'trigger' && c.result?.passed && c.result.current)
    .sort((a, b) => worth(a) - worth(b))
}

/** What proves a detection: a picture of the trigger's moment where there can be one, and the targets. */
export type Evidence = Pick<CheckRecord, 'picture' | 'tracks'>

/** @returns null: there is nothing to keep of this check */
export async function keepEvidence(
  { proving }: PictureSources,
  check: CheckRecord,
  background: RecordPicture | null,
  folder: string
): Promise<Evidence | null> {
  const shown = await proving.evidenceOf(
    check.camera,
    check.id,
    background && (await readFile(join(folder, background.file)))
  )
  if (!shown) return null
  const { jpeg, tracks, fps, width, height } = shown
  const name = `evidence/${check.camera}-${check.id}`
  return {
    picture:
      jpeg === null
        ? null
        : await keepFile(folder, `${name}.jpg`, Buffer.from(jpeg, 'base64')).then((kept) => ({
            ...kept,
            at: check.result?.at ?? null
          })),
    tracks: { ...(await keepFile(folder, `${name}.csv`, Buffer.from(tracks))), fps, width, height }
  }
}
