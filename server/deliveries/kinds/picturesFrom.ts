import { Failure } from '../../../core/errors.ts'
import { said, type Said } from '../../../core/messages/said.ts'
import { listCameras, type SiteAlone } from '../../sites/queries.ts'
import type { SenderParts } from './kind.ts'

/**
 * Whether a camera gives pictures at all; null: the site's first one stands for those of the detections.
 *
 * @throws Failure when none can be reached
 */
export async function picturesFrom(
  { database, devices }: SenderParts,
  camera: string | null,
  site: SiteAlone
): Promise<Said> {
  const asked = camera ?? (await listCameras(database, site.id))[0]?.id
  const found = asked ? await devices.channelShowing(asked) : null
  if (!found) throw new Failure(said('deliveries.noCameraDevice'))
  const picture = await devices.pictures.snapshot(found)
  return said('deliveries.givesPictures', found.row.name, Math.round(picture.length / 1024))
}
