import { mail } from '../../../core/messages/en/codes/happenings.ts'
import { said } from '../../../core/messages/said.ts'
import { Failure, saidOfError } from '../../../core/errors.ts'
import { emailOf } from '../../../core/actions/email.ts'
import { addressesOf, type EndpointOf, type Mail } from '../../../core/formats/actions.ts'
import { readSettings } from '../../actions/queries.ts'
import { pictureName, type Picture } from '../pictures.ts'
import { Refused } from '../refused.ts'
import type { DueDelivery } from '../queries.ts'
import { long, type DeliveryKind, type Done, type SenderParts } from './kind.ts'

export const email: DeliveryKind<EndpointOf<'email'>> = {
  send,
  test: async (parts, endpoint, site) => {
    const { server, password, people } = await mailAccount(parts, site.id)
    const to = addressesOf(endpoint, people)
    if (!to.length) throw new Failure(said('actions.noRecipient'))
    return parts.mailer.send(server, password, {
      to,
      subject: mail.testSubject(site.name, endpoint.name),
      text: `${mail.testText(site.name)}\n`
    })
  },
  recipient: (endpoint, { people }) => addressesOf(endpoint, people).join(', '),
  patience: long,
  atOnce: 4
}

/** The mail server with its password. @throws Refused when there is none */
async function mailAccount(
  { database, encryption }: Pick<SenderParts, 'database' | 'encryption'>,
  siteId: string
): Promise<{ server: Mail; password: string | null; people: ReturnType<typeof peopleIn> }> {
  const settings = await readSettings(database, siteId)
  if (!settings.mail.mail) throw new Refused(said('actions.noMailServer'))
  return {
    server: settings.mail.mail,
    password: settings.sealed === null ? null : encryption.decrypt(settings.sealed),
    people: peopleIn(settings)
  }
}
const peopleIn = (settings: Awaited<ReturnType<typeof readSettings>>) => settings.people.people

async function send(
  parts: SenderParts,
  due: DueDelivery,
  endpoint: EndpointOf<'email'>
): Promise<Done> {
  const { server, password, people } = await mailAccount(parts, due.site.id)
  const { trigger } = due
  if (!trigger) throw new Refused(said('deliveries.noTrigger'))
  const { pictures, missing } = await parts.pictures
    .around(trigger, due.camera.id, endpoint.before, endpoint.after, endpoint.stepSeconds)
    // A mail without pictures is worth more than none.
    .catch((error: unknown) => ({ pictures: [] as Picture[], missing: saidOfError(error) }))
  const target = await parts.pictures.targetOf(trigger)
  const { subject, text } = emailOf({
    site: due.site,
    camera: due.camera.name,
    detection: trigger.detection,
    trigger: { ...trigger, ...(trigger.clip && { time: trigger.clip.time }) },
    cls: target?.cls ?? 'unknown',
    instant: trigger.firedAt,
    pictures: pictures.length,
    missing
  })
  const response = await parts.mailer.send(server, password, {
    to: addressesOf(endpoint, people),
    // The same at each attempt: a mailbox that got it already can tell.
    messageId: `<delivery-${due.id}@wardoptic>`,
    subject,
    text,
    attachments: pictures.map(({ offset, jpeg }) => ({
      filename: pictureName(offset),
      content: jpeg,
      contentType: 'image/jpeg'
    }))
  })
  return { outcome: response }
}
