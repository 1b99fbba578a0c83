import { Failure } from '../../../core/errors.ts'
import { said, type Said } from '../../../core/messages/said.ts'
import type { SiteView } from '../../../core/api.ts'
import type { Devices } from '../../devices/service.ts'

/**
 * Whether a camera gives pictures at all; null: the site's first one stands for those of the detections.
 *
 * @throws Failure when none can be reached
 */
export async function picturesFrom(
  devices: Devices,
  camera: string | null,
  { cameras }: SiteView
): Promise<Said> {
  const asked = camera ?? cameras[0]?.id
  const found = asked ? await devices.channelShowing(asked) : null
  if (!found) throw new Failure(said('deliveries.noCameraDevice'))
  const picture = await devices.pictures.snapshot(found)
  return said('deliveries.givesPictures', found.row.name, Math.round(picture.length / 1024))
}
