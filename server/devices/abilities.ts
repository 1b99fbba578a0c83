import { localName } from '../../core/formats/onvif/rule.ts'
import { DETECTION_KINDS, hasField } from '../../core/kinds/schemas.ts'
import { kindOfType, ruleTypeOf } from '../../core/kinds/rules.ts'
import { said, type Said } from '../../core/messages/said.ts'
import type { Ability, AbilityState, AbilityView } from '../../core/devices/upkeep.ts'
import type { ChannelRow } from './channelQueries.ts'
import { DeviceError, ifOffered } from './link/deviceError.ts'
import type { DeviceLink } from './link/link.ts'
import type { LinkChannel } from './link/profiles.ts'

/** A working camera sends frames even when it sees nothing; silence for this long means that it does not work. */
const TARGETS_WITHIN_MS = 6000
/** What detections are set to, and the parameter of a rule that holds it. */
const ASKED = [
  { field: 'classes', parameter: 'ClassFilter', lacks: 'devices.lacksClasses' },
  { field: 'sensitivity', parameter: 'Sensitivity', lacks: 'devices.lacksSensitivity' }
] as const

interface Asked {
  link: DeviceLink
  /** Of the site. */
  timeZone: string
  /** As they were read last. */
  channels: readonly ChannelRow[]
  /** Takes one picture, by whatever way the device has. */
  picture: (channel: ChannelRow) => Promise<Buffer>
  /** Whether its events are being heard. */
  listens: boolean
}

type Found = [AbilityState, (Said | string)?]

/** What works with a device: each ability is tried now, and its own answer is kept where it refuses. */
export async function abilitiesOf(asked: Asked): Promise<AbilityView[]> {
  const { link, channels, timeZone } = asked
  const several = channels.length > 1
  const found: AbilityView[] = []
  const add = async (
    ability: Ability,
    channel: ChannelRow | null,
    work: () => Promise<Found>
  ): Promise<void> => {
    const [state, says] = await work().catch(foundBy)
    const of = channel && several ? channel.name : null
    found.push({ ability, channel: of, kind: null, state, says: says ?? null })
  }
  // The channels as the device has them now; what was read last stands where it does not say.
  const now = await link.media.channels().catch((): LinkChannel[] => [])
  for (const channel of channels) {
    await add('picture', channel, () => pictureOf(asked, channel))
    await add('targets', channel, () => targetsOf(link, channel))
    found.push(...rulesOf(channel, several))
    await add('modes', channel, () =>
      Promise.resolve(counted(channel.modes.map((m) => localName(m.type))))
    )
    const source = now.find((c) => c.token === channel.token)?.source
    await add('nightPicture', channel, async () => {
      const mode = source === undefined ? null : await link.upkeep.nightPicture(source)
      return mode === null ? ['not-offered'] : ['works', said('devices.nightPicture', mode)]
    })
  }
  await add('events', null, () => eventsOf(asked))
  await add('outputs', null, async () => counted((await link.io.outputs()).map((o) => o.name)))
  await add('inputs', null, async () => counted(await link.io.inputs()))
  await add('clock', null, async () => {
    const ahead = await link.clockAhead()
    const clock = await link.upkeep.clock(timeZone)
    if (ahead === null || !clock) return ['not-offered']
    return ['works', said('devices.clockIs', clock.byNtp, clock.ofSite)]
  })
  await add('storage', null, async () => {
    const storage = await link.upkeep.storage()
    return storage === null ? ['not-offered'] : counted(storage.map(({ place }) => place))
  })
  await add('network', null, async () => {
    const network = await link.upkeep.network()
    return network === null ? ['not-offered'] : counted(network.addresses)
  })
  return found
}

const counted = (names: readonly string[]): Found =>
  names.length ? ['works', said('values.list', names)] : ['not-offered']

function foundBy(error: unknown): Found {
  if (!(error instanceof DeviceError)) throw error
  return [error.kind === 'offline' || error.kind === 'slow' ? 'no-answer' : 'refused', error.said]
}

async function pictureOf({ link, picture }: Asked, channel: ChannelRow): Promise<Found> {
  const uri = await ifOffered(link.media.streamUri(channel.picture))
  await picture(channel)
  if (uri === undefined) return ['partly', said('devices.snapshotsOnly')]
  return ['works', uri.startsWith('rtsp') ? said('devices.rtsp') : said('devices.motionJpeg')]
}

async function targetsOf(link: DeviceLink, channel: ChannelRow): Promise<Found> {
  if (!channel.hasMetadata) return ['not-offered']
  const enough = AbortSignal.timeout(TARGETS_WITHIN_MS)
  try {
    for await (const frame of link.media.targets(channel.profile, enough))
      return ['works', said('devices.targetsNow', frame.targets.length)]
  } catch (error) {
    if (!enough.aborted) throw error
  }
  return ['no-answer', said('devices.streamSilent', TARGETS_WITHIN_MS / 1000)]
}

async function eventsOf({ link, listens }: Asked): Promise<Found> {
  if (listens) return ['works']
  await link.events.unsubscribe(await link.events.subscribe())
  return ['works']
}

function rulesOf(channel: ChannelRow, several: boolean): AbilityView[] {
  return DETECTION_KINDS.filter((kind) => ruleTypeOf(kind) !== undefined).map((kind) => {
    const ability = channel.abilities.find(({ type }) => kindOfType(type) === kind)
    const lacks = ASKED.filter(
      ({ field, parameter }) => hasField(kind, field) && !ability?.parameters.includes(parameter)
    )
    const of = { ability: 'rule', channel: several ? channel.name : null, kind } as const
    if (!ability) return { ...of, state: 'not-offered', says: null }
    if (lacks.length)
      return {
        ...of,
        state: 'partly',
        says: said(
          'values.list',
          lacks.map((l) => said(l.lacks))
        )
      }
    return { ...of, state: 'works', says: null }
  })
}
