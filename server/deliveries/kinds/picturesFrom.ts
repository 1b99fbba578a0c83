import type { SiteView } from '../../../core/api.ts'
import type { Devices } from '../../devices/service.ts'

/**
 * Whether a camera gives pictures at all; null: the site's first one stands for those of the detections.
 *
 * @throws Error when none can be reached
 */
export async function picturesFrom(
  devices: Devices,
  camera: string | null,
  { cameras }: SiteView
): Promise<string> {
  const asked = camera ?? cameras[0]?.id
  const found = asked ? await devices.channelShowing(asked) : null
  if (!found) throw new Error('no device that shows this camera can be reached')
  const picture = await devices.link(found.row).snapshot(found.channel.profile)
  return `${found.row.name} gives pictures (${Math.round(picture.length / 1024)} KB)`
}
