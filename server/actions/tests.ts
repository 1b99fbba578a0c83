import { randomUUID } from 'node:crypto'
import type { SiteView } from '../../core/api.ts'
import { addressesOf, isOutput, type Endpoint } from '../../core/formats/actions.ts'
import { MOST_SEQUENCE } from '../../core/formats/dc09.ts'
import { addressFor } from '../standIns.ts'
import { callWebhook, mailAccount, switchOutput, type SenderParts } from '../deliveries/senders.ts'
import { tellStation } from '../deliveries/station.ts'

/**
 * Sets an endpoint off as it is set up, to see whether it works.
 * @returns what was confirmed
 * @throws Error with what was wrong
 */
export async function testEndpoint(
  parts: SenderParts,
  endpoint: Endpoint,
  site: SiteView
): Promise<string> {
  if (isOutput(endpoint)) {
    const { words } = await switchOutput(parts, endpoint, 'on')
    // What stays closed until somebody acknowledges would stay so for ever.
    if (endpoint.kind === 'relay' && endpoint.mode !== 'pulse')
      setTimeout(() => void switchOutput(parts, endpoint, 'off').catch(() => {}), 3000)
    return words
  }
  switch (endpoint.kind) {
    case 'email': {
      const { mail, password, people } = await mailAccount(parts, site.id)
      const to = addressesOf(endpoint, people)
      if (!to.length) throw new Error('it has no recipient')
      return parts.mailer.send(mail, password, {
        to,
        subject: `${site.name}: test of ${endpoint.name}`,
        text: `This is a test of the e-mails of ${site.name}. Nothing has happened.\n`
      })
    }
    case 'station':
      // RX: manual test (DC-03, from memory).
      await tellStation(addressFor(endpoint.host, endpoint.port, parts.standIns, 'station'), {
        id: 'SIA-DCS',
        sequence: 1 + (Date.now() % MOST_SEQUENCE),
        account: endpoint.account,
        data: `Nri1/RX00^critical: Test of ${site.name}^`,
        at: Date.now()
      })
      return 'the station confirmed the test'
    case 'webhook':
      return (
        await callWebhook(parts, endpoint, `test-${randomUUID()}`, { test: true, site: site.name })
      ).words
    case 'popup': {
      const seen = await parts.popups.show({
        id: 0,
        alarm: null,
        clip: false,
        words: `Test of ${endpoint.name}`,
        sound: endpoint.sound
      })
      return `shown in ${seen} ${seen === 1 ? 'window' : 'windows'}`
    }
    case 'recording':
    case 'snapshots': {
      const camera = endpoint.camera ?? site.cameras[0]?.id
      const found = camera ? await parts.devices.channelShowing(camera) : null
      if (!found) throw new Error('no device that shows this camera can be reached')
      const picture = await parts.devices.link(found.row).snapshot(found.channel.profile)
      return `${found.row.name} gives pictures (${Math.round(picture.length / 1024)} KB)`
    }
  }
}
