import { said } from '../../../core/messages/said.ts'
import { mkdir, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { pictureName } from '../pictures.ts'
import { Refused } from '../refused.ts'
import type { DueDelivery } from '../queries.ts'
import { picturesFrom } from './picturesFrom.ts'
import { long, type DeliveryKind, type Done, type SenderParts } from './kind.ts'

export const snapshots: DeliveryKind<EndpointOf<'snapshots'>> = {
  send,
  test: (parts, endpoint, site) => picturesFrom(parts, endpoint.camera, site),
  recipient: (endpoint, { camera, named }) => named(endpoint.camera ?? camera),
  patience: long,
  atOnce: 3
}

async function send(
  { pictures, folder }: SenderParts,
  due: DueDelivery,
  endpoint: EndpointOf<'snapshots'>
): Promise<Done> {
  if (!due.trigger) throw new Refused(said('deliveries.noTrigger'))
  const camera = endpoint.camera ?? due.camera.id
  // The shape of one camera's detection has no place in another one's picture.
  const detection =
    camera === due.camera.id
      ? due.trigger.detection
      : { ...due.trigger.detection, kind: 'signalLoss' as const, delaySeconds: 0 }
  const { pictures: list, missing } = await pictures.around(
    { ...due.trigger, detection },
    camera,
    endpoint.before,
    endpoint.after,
    endpoint.stepSeconds
  )
  if (!list.length) throw new Refused(missing ?? said('deliveries.noPicture'))
  await mkdir(join(folder, String(due.id)), { recursive: true })
  for (const { offset, jpeg } of list)
    await writeFile(join(folder, String(due.id), pictureName(offset)), jpeg)
  return {
    outcome: missing
      ? said('deliveries.picturesMissing', list.length, missing)
      : said('deliveries.pictures', list.length),
    result: { files: list.map(({ offset }) => ({ name: pictureName(offset), type: 'image/jpeg' })) }
  }
}
