import { wordsOf } from '../../../core/messages/words.ts'
import { Failure } from '../../../core/errors.ts'
import { said } from '../../../core/messages/said.ts'
import { randomUUID } from 'node:crypto'
import { request } from 'undici'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { hostOf } from '../hostOf.ts'
import { Refused } from '../refused.ts'
import type { DueDelivery } from '../queries.ts'
import { long, happeningOf, type DeliveryKind, type Done, type SenderParts } from './kind.ts'

const WEBHOOK_WITHIN_MS = 8000

export const webhook: DeliveryKind<EndpointOf<'webhook'>> = {
  send: (parts, due, endpoint) => call(parts, endpoint, `delivery-${due.id}`, bodyOf(due)),
  test: async (parts, endpoint, site) =>
    (await call(parts, endpoint, `test-${randomUUID()}`, { test: true, site: site.name })).outcome,
  recipient: ({ url }) => hostOf(url),
  patience: long,
  atOnce: 16
}

const bodyOf = (due: DueDelivery): object => ({
  id: due.id,
  alarm: due.alarm,
  site: due.site.name,
  camera: due.camera,
  words: wordsOf(happeningOf(due)),
  ...(due.trigger && {
    detection: {
      id: due.trigger.detection.id,
      name: due.trigger.detection.name,
      kind: due.trigger.kind
    },
    at: new Date(due.trigger.firedAt).toISOString(),
    direction: due.trigger.direction ?? null,
    severity: due.trigger.severity ?? null,
    cause: due.trigger.cause ?? null,
    test: due.trigger.clip !== null
  })
})

/** @param key the same for what is the same: whoever is called can tell a second try from a second message */
async function call(
  { reach }: SenderParts,
  { url }: EndpointOf<'webhook'>,
  key: string,
  body: object
): Promise<Done> {
  const address = new URL(url)
  const { host, port } = reach('web', address.hostname, Number(address.port))
  Object.assign(address, { hostname: host, port: port ? String(port) : '' })
  // A name and password in the address are sent as what they mean (RFC 7617).
  const { username, password } = address
  const authorization =
    username || password
      ? `Basic ${Buffer.from(`${decodeURIComponent(username)}:${decodeURIComponent(password)}`).toString('base64')}`
      : null
  Object.assign(address, { username: '', password: '' })
  let status: number
  try {
    const { statusCode, body: answer } = await request(address, {
      method: 'POST',
      signal: AbortSignal.timeout(WEBHOOK_WITHIN_MS),
      // An alarm never goes by a connection that the other side may just be closing.
      reset: true,
      headers: {
        'content-type': 'application/json',
        'idempotency-key': key,
        ...(authorization && { authorization })
      },
      body: JSON.stringify(body)
    })
    status = statusCode
    // What it says beside that is thrown away.
    void answer.dump().catch(() => {})
  } catch (error) {
    throw new Failure(
      (error as Error).name === 'TimeoutError'
        ? said('deliveries.webhookSlow', WEBHOOK_WITHIN_MS / 1000)
        : said('deliveries.webhookUnreachable', address.host),
      error
    )
  }
  if (status >= 400 && status < 500 && status !== 408 && status !== 429)
    throw new Refused(said('deliveries.webhookRefused', status))
  if (status < 200 || status > 299) throw new Failure(said('deliveries.webhookFailed', status))
  return { outcome: said('deliveries.webhookDone', status) }
}
