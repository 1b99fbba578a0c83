import { Failure } from '../../core/errors.ts'
import { said, type Said } from '../../core/messages/said.ts'
import { readFile } from 'node:fs/promises'
import { pictureAt } from '../../analysis/pictures.ts'
import { readMot } from '../../core/formats/mot.ts'
import { firstRowOfFrame, rowAt, type TargetRow } from '../../core/targets/tracks.ts'
import type { Clips } from '../clips/service.ts'
import { readClip } from '../clips/queries.ts'
import type { Database } from '../database.ts'
import type { Devices } from '../devices/service.ts'
import type { DueTrigger } from './queries.ts'
import { drawSnapshot } from './snapshot.ts'

export interface Picture {
  /** Seconds from the trigger: 0 is its own. */
  offset: number
  jpeg: Buffer
}

/** The pictures of a trigger: its own with the shape and the target drawn, and some before and after it. */
export class Pictures {
  private readonly database: Database
  private readonly clips: Clips
  private readonly devices: Devices

  constructor(database: Database, clips: Clips, devices: Devices) {
    this.database = database
    this.clips = clips
    this.devices = devices
  }

  /**
   * @param camera whose pictures; of a trigger in a clip there are only those of the clip's own camera
   * @returns in order of time; those that cannot be had are left out, with why
   */
  async around(
    trigger: DueTrigger,
    camera: string,
    before: number,
    after: number,
    stepSeconds: number
  ): Promise<{ pictures: Picture[]; missing: Said | null }> {
    const offsets = Array.from({ length: before + 1 + after }, (_, i) => (i - before) * stepSeconds)
    return trigger.clip
      ? this.ofClip(trigger, trigger.clip, camera, offsets)
      : this.live(trigger, camera, offsets)
  }

  private async ofClip(
    trigger: DueTrigger,
    { id, time }: NonNullable<DueTrigger['clip']>,
    camera: string,
    offsets: readonly number[]
  ): Promise<{ pictures: Picture[]; missing: Said | null }> {
    const clip = await readClip(this.database, id)
    if (clip.camera !== camera) return { pictures: [], missing: said('deliveries.otherCamera') }
    const seconds = clip.frames / clip.fps
    const within = offsets.filter((offset) => time + offset >= 0 && time + offset < seconds)
    const pictures: Picture[] = []
    for (const offset of within) {
      const png = await pictureAt(this.clips.file(id, 'view.mp4'), time + offset)
      pictures.push({
        offset,
        jpeg: await drawSnapshot(
          png,
          trigger.detection,
          offset === 0 ? await this.targetOf(trigger) : null
        )
      })
    }
    return {
      pictures,
      missing: within.length < offsets.length ? said('deliveries.clipEnds') : null
    }
  }

  private async live(
    { detection, firedAt }: DueTrigger,
    camera: string,
    offsets: readonly number[]
  ): Promise<{ pictures: Picture[]; missing: Said | null }> {
    const found = await this.devices.channelShowing(camera)
    if (!found) throw new Failure(said('deliveries.noCameraDevice'))
    const link = this.devices.link(found.row)
    const { profile } = found.channel
    const pictures: Picture[] = []
    for (const offset of offsets) {
      const ago = (Date.now() - firedAt) / 1000 - offset
      const jpeg = await link.media.pictureAgo(profile, Math.max(0, ago))
      if (jpeg) pictures.push({ offset, jpeg: await drawSnapshot(jpeg, detection, null) })
    }
    if (pictures.length) return { pictures, missing: null }
    return {
      pictures: [
        {
          offset: 0,
          jpeg: await drawSnapshot(await this.devices.pictures.snapshot(found), detection, null)
        }
      ],
      missing: offsets.length > 1 ? said('deliveries.noEarlierPictures') : null
    }
  }

  /** The target's row at the moment of the trigger. */
  async targetOf({ clip: at, target }: DueTrigger): Promise<TargetRow | null> {
    if (target === undefined || !at) return null
    const clip = await readClip(this.database, at.id)
    const tracks = readMot(
      await readFile(this.clips.file(at.id, 'tracks.csv'), 'utf8'),
      clip.fps,
      clip
    )
    for (
      let i = firstRowOfFrame(tracks, at.frame);
      i < tracks.length && tracks.frame[i] === at.frame;
      i++
    )
      if (tracks.id[i] === target) return rowAt(tracks, i)
    return null
  }
}

/** A picture's file name; `snapshot.jpg` is the trigger's own. */
export const pictureName = (offset: number): string =>
  offset === 0
    ? 'snapshot.jpg'
    : `snapshot${offset < 0 ? '-before' : '-after'}-${Math.abs(offset).toFixed(1)}s.jpg`
