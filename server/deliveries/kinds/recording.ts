import { Failure } from '../../../core/errors.ts'
import { said } from '../../../core/messages/said.ts'
import { mkdir } from 'node:fs/promises'
import { join } from 'node:path'
import { cutOut } from '../../../analysis/pictures.ts'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { Refused } from '../refused.ts'
import { RECORDING, type DueDelivery } from '../queries.ts'
import { picturesFrom } from './picturesFrom.ts'
import { long, type DeliveryKind, type Done, type SenderParts } from './kind.ts'

export const recording: DeliveryKind<EndpointOf<'recording'>> = {
  send,
  test: (parts, endpoint, site) => picturesFrom(parts, endpoint.camera, site),
  recipient: (endpoint, { camera, named }) => named(endpoint.camera ?? camera),
  patience: long,
  atOnce: 3
}

/** A recording around a trigger: cut out of the clip, or told to a device. */
async function send(
  { devices, clips, folder }: SenderParts,
  due: DueDelivery,
  endpoint: EndpointOf<'recording'>
): Promise<Done> {
  const camera = endpoint.camera ?? due.camera.id
  const { trigger } = due
  if (!trigger) throw new Refused(said('deliveries.noTrigger'))
  if (trigger.clip) {
    if (camera !== due.camera.id) throw new Refused(said('deliveries.onlyLive'))
    await mkdir(join(folder, String(due.id)), { recursive: true })
    const seconds = await cutOut(
      clips.file(trigger.clip.id, 'view.mp4'),
      trigger.clip.time - endpoint.beforeSeconds,
      trigger.clip.time + endpoint.afterSeconds,
      join(folder, String(due.id), RECORDING.name)
    )
    return { outcome: said('deliveries.clipSeconds', seconds), result: { files: [RECORDING] } }
  }
  const found = await devices.recorderOf(camera)
  if (!found) throw new Failure(said('deliveries.noCameraDevice'))
  // What has passed since the trigger is before now.
  const late = Math.max(0, (Date.now() - trigger.firedAt) / 1000)
  const token = await devices
    .link(found.row)
    .recordings.record(
      found.channel.token,
      Math.min(60, endpoint.beforeSeconds + late),
      Math.max(1, endpoint.afterSeconds - late)
    )
  return {
    outcome: said('deliveries.records', found.row.name),
    result: { recording: { device: found.row.id, token } }
  }
}
