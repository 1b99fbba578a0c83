import { mkdir, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { cutOut } from '../../analysis/pictures.ts'
import { emailOf, happening } from '../../core/actions/email.ts'
import { outputSettings } from '../../core/devices/outputs.ts'
import {
  addressesOf,
  type EndpointOf,
  type Mail,
  type OutputEndpoint
} from '../../core/formats/actions.ts'
import { MOST_SEQUENCE, eventData } from '../../core/formats/dc09.ts'
import { readSettings } from '../actions/rows.ts'
import { voiceOf } from '../actions/voices.ts'
import type { Clips } from '../clips/clips.ts'
import type { Database } from '../database.ts'
import type { Devices } from '../devices/devices.ts'
import { readDevice } from '../devices/rows.ts'
import type { Seal } from '../devices/seal.ts'
import { STAND_IN, addressFor, type StandInPorts } from '../standIns.ts'
import type { Mailer } from './mail.ts'
import type { Picture, Pictures } from './pictures.ts'
import type { Popups } from './popups.ts'
import type { Done, Sender, Senders } from './queue.ts'
import { Refused } from './refused.ts'
import { RECORDING, type DueDelivery } from './rows.ts'
import { tellStation } from './station.ts'

export interface SenderParts {
  database: Database
  devices: Devices
  clips: Clips
  pictures: Pictures
  popups: Popups
  mailer: Mailer
  seal: Seal
  standIns: StandInPorts | null
  /** Where pictures and recordings are kept. */
  folder: string
}

const WEBHOOK_WITHIN_MS = 8000

/** How each kind of endpoint is set off. Every sender ends with a confirmation or throws what was wrong. */
export function makeSenders(parts: SenderParts): Senders {
  const output: Sender = ({ endpoint, does }) =>
    switchOutput(parts, endpoint as OutputEndpoint, does)
  return {
    strobe: output,
    speaker: output,
    relay: output,
    buzzer: output,
    email: (due) => sendEmail(parts, due),
    station: (due) => tell(parts, due),
    webhook: (due) =>
      callWebhook(parts, due.endpoint as EndpointOf<'webhook'>, `delivery-${due.id}`, bodyOf(due)),
    popup: async (due) => {
      const { sound } = due.endpoint as EndpointOf<'popup'>
      const seen = await parts.popups.show({
        id: due.id,
        alarm: due.alarm,
        clip: due.trigger?.clip != null,
        words: wordsOf(due),
        sound
      })
      return { words: `shown in ${seen} ${seen === 1 ? 'window' : 'windows'}` }
    },
    recording: (due) => record(parts, due),
    snapshots: (due) => keepSnapshots(parts, due)
  }
}

/** Sets an output off, or releases it, at its device. */
export async function switchOutput(
  { database, devices }: Pick<SenderParts, 'database' | 'devices'>,
  endpoint: OutputEndpoint,
  does: 'on' | 'off'
): Promise<Done> {
  const row = await readDevice(database, endpoint.device)
  const link = devices.link(row)
  if (does === 'off') {
    await link.release(endpoint.output)
    return { words: `${row.name} has released it` }
  }
  const settings = outputSettings(endpoint)
  // The server opens it again itself.
  if (endpoint.kind === 'relay' && endpoint.mode === 'follow') settings.Mode = 'untilAcknowledged'
  await link.activate(
    endpoint.output,
    settings,
    await voiceOf(database, await siteIdOf(database), endpoint)
  )
  return { words: `${row.name} has taken it` }
}

const siteIdOf = async (database: Database): Promise<string> =>
  (await database.rows<{ id: string }>('SELECT id FROM site ORDER BY id LIMIT 1'))[0]?.id ?? ''

/** The mail server with its password. @throws Refused when there is none */
export async function mailAccount(
  { database, seal }: Pick<SenderParts, 'database' | 'seal'>,
  siteId: string
): Promise<{ mail: Mail; password: string | null; people: ReturnType<typeof peopleIn> }> {
  const settings = await readSettings(database, siteId)
  if (!settings.mail.mail) throw new Refused('there is no mail server yet')
  return {
    mail: settings.mail.mail,
    password: settings.sealed === null ? null : seal.open(settings.sealed),
    people: peopleIn(settings)
  }
}
const peopleIn = (settings: Awaited<ReturnType<typeof readSettings>>) => settings.people.people

async function sendEmail(parts: SenderParts, due: DueDelivery): Promise<Done> {
  const endpoint = due.endpoint as EndpointOf<'email'>
  const { mail, password, people } = await mailAccount(parts, due.site.id)
  const { trigger } = due
  if (!trigger) throw new Refused('there is no trigger to tell of')
  const { pictures, missing } = await parts.pictures
    .around(trigger, due.camera.id, endpoint.before, endpoint.after, endpoint.stepSeconds)
    // A mail without pictures is worth more than none.
    .catch((error: Error) => ({ pictures: [] as Picture[], missing: error.message }))
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
  const response = await parts.mailer.send(mail, password, {
    to: addressesOf(endpoint, people),
    // The same at each attempt: a mailbox that got it already can tell.
    messageId: `<delivery-${due.id}@wardoptic>`,
    subject,
    text,
    attachments: pictures.map(({ offset, jpeg }) => ({
      filename: nameOf(offset),
      content: jpeg,
      contentType: 'image/jpeg'
    }))
  })
  return { words: response }
}

/** `snapshot.jpg` is the trigger's own. */
const nameOf = (offset: number): string =>
  offset === 0
    ? 'snapshot.jpg'
    : `snapshot${offset < 0 ? '-before' : '-after'}-${Math.abs(offset).toFixed(1)}s.jpg`

const wordsOf = ({ trigger, camera }: DueDelivery): string =>
  trigger ? `${camera.name}: ${happening(trigger.detection, trigger)}` : camera.name

const bodyOf = (due: DueDelivery): object => ({
  id: due.id,
  alarm: due.alarm,
  site: due.site.name,
  camera: due.camera,
  words: wordsOf(due),
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

async function tell({ standIns }: SenderParts, due: DueDelivery): Promise<Done> {
  const endpoint = due.endpoint as EndpointOf<'station'>
  const { trigger } = due
  if (!trigger) throw new Refused('there is no trigger to tell of')
  const sequence = ((due.id - 1) % MOST_SEQUENCE) + 1
  await tellStation(addressFor(endpoint.host, endpoint.port, standIns, 'station'), {
    id: 'SIA-DCS',
    sequence,
    account: endpoint.account,
    data: eventData({
      kind: trigger.kind,
      zone: due.camera.number,
      severity: trigger.severity ?? 'major',
      words: wordsOf(due)
    }),
    at: trigger.firedAt
  })
  return { words: `the station confirmed ${String(sequence).padStart(4, '0')}` }
}

/** @param key the same for what is the same: whoever is called can tell a second try from a second message */
export async function callWebhook(
  { standIns }: Pick<SenderParts, 'standIns'>,
  { url }: EndpointOf<'webhook'>,
  key: string,
  body: object
): Promise<Done> {
  const address = new URL(url)
  if (address.hostname === STAND_IN)
    Object.assign(
      address,
      (({ host, port }) => ({ hostname: host, port: String(port) }))(
        addressFor(STAND_IN, 0, standIns, 'pages')
      )
    )
  // A name and password in the address are sent as what they mean (RFC 7617); in an address `fetch` refuses them.
  const { username, password } = address
  const authorization =
    username || password
      ? `Basic ${Buffer.from(`${decodeURIComponent(username)}:${decodeURIComponent(password)}`).toString('base64')}`
      : null
  Object.assign(address, { username: '', password: '' })
  let answer: Response
  try {
    answer = await fetch(address, {
      method: 'POST',
      redirect: 'error',
      signal: AbortSignal.timeout(WEBHOOK_WITHIN_MS),
      headers: {
        'content-type': 'application/json',
        'idempotency-key': key,
        ...(authorization && { authorization })
      },
      body: JSON.stringify(body)
    })
  } catch (error) {
    throw new Error(
      (error as Error).name === 'TimeoutError'
        ? `no answer within ${WEBHOOK_WITHIN_MS / 1000} s`
        : `${address.host} cannot be reached`,
      { cause: error }
    )
  }
  await answer.body?.cancel()
  if (answer.status >= 400 && answer.status < 500 && answer.status !== 408 && answer.status !== 429)
    throw new Refused(`it was refused with HTTP ${answer.status}`)
  if (!answer.ok) throw new Error(`it answered with HTTP ${answer.status}`)
  return { words: `HTTP ${answer.status}` }
}

/** A recording around a trigger: cut out of the clip, or told to a device. */
async function record({ devices, clips, folder }: SenderParts, due: DueDelivery): Promise<Done> {
  const endpoint = due.endpoint as EndpointOf<'recording'>
  const camera = endpoint.camera ?? due.camera.id
  const { trigger } = due
  if (!trigger) throw new Refused('there is no trigger to record')
  if (trigger.clip) {
    if (camera !== due.camera.id)
      throw new Refused('the clip shows another camera; this one is recorded only live')
    await mkdir(join(folder, String(due.id)), { recursive: true })
    const seconds = await cutOut(
      clips.file(trigger.clip.id, 'view.mp4'),
      trigger.clip.time - endpoint.beforeSeconds,
      trigger.clip.time + endpoint.afterSeconds,
      join(folder, String(due.id), RECORDING.name)
    )
    return { words: `${seconds.toFixed(1)} s of the clip`, result: { files: [RECORDING] } }
  }
  const found = await devices.recorderOf(camera)
  if (!found) throw new Error('no device that shows this camera can be reached')
  // What has passed since the trigger is before now.
  const late = Math.max(0, (Date.now() - trigger.firedAt) / 1000)
  const token = await devices
    .link(found.row)
    .record(
      found.channel.token,
      Math.min(60, endpoint.beforeSeconds + late),
      Math.max(1, endpoint.afterSeconds - late)
    )
  return {
    words: `${found.row.name} records`,
    result: { recording: { device: found.row.id, token } }
  }
}

async function keepSnapshots({ pictures, folder }: SenderParts, due: DueDelivery): Promise<Done> {
  const endpoint = due.endpoint as EndpointOf<'snapshots'>
  if (!due.trigger) throw new Refused('there is no trigger to picture')
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
  if (!list.length) throw new Refused(missing ?? 'there is no picture')
  await mkdir(join(folder, String(due.id)), { recursive: true })
  for (const { offset, jpeg } of list)
    await writeFile(join(folder, String(due.id), nameOf(offset)), jpeg)
  return {
    words: `${list.length} ${list.length === 1 ? 'picture' : 'pictures'}${missing ? `; ${missing}` : ''}`,
    result: { files: list.map(({ offset }) => ({ name: nameOf(offset), type: 'image/jpeg' })) }
  }
}
