import { wordsOf } from '../../../core/messages/words.ts'
import { said } from '../../../core/messages/said.ts'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { MAX_SEQUENCE, eventData } from '../../../core/formats/dc09.ts'
import { Refused } from '../refused.ts'
import type { DueDelivery } from '../queries.ts'
import { tellStation } from '../station.ts'
import { long, type DeliveryKind, type Done, type SenderParts, happeningOf } from './kind.ts'

export const station: DeliveryKind<EndpointOf<'station'>> = {
  send,
  test: async ({ reach }, endpoint, site) => {
    // RX: manual test (DC-03, from memory).
    await tellStation(reach('station', endpoint.host, endpoint.port), {
      id: 'SIA-DCS',
      sequence: 1 + (Date.now() % MAX_SEQUENCE),
      account: endpoint.account,
      data: `Nri1/RX00^critical: ${wordsOf(said('deliveries.stationTest', site.name))}^`,
      at: Date.now()
    })
    return said('deliveries.stationConfirmedTest')
  },
  recipient: ({ host, port, account }) => `${host}:${port} (${account})`,
  patience: long,
  atOnce: 12
}

async function send(
  { reach }: SenderParts,
  due: DueDelivery,
  endpoint: EndpointOf<'station'>
): Promise<Done> {
  const { trigger } = due
  if (!trigger) throw new Refused(said('deliveries.noTrigger'))
  const sequence = ((due.id - 1) % MAX_SEQUENCE) + 1
  await tellStation(reach('station', endpoint.host, endpoint.port), {
    id: 'SIA-DCS',
    sequence,
    account: endpoint.account,
    data: eventData({
      kind: trigger.kind,
      zone: due.camera.number,
      severity: trigger.severity ?? 'major',
      words: wordsOf(happeningOf(due))
    }),
    at: trigger.firedAt
  })
  return { outcome: said('deliveries.stationConfirmed', String(sequence).padStart(4, '0')) }
}
