import { secondsIn } from '../../../core/formats/onvif/durations.ts'
import { isSameZone, isSummerTime, posixZone } from '../../../core/arming/posixZone.ts'
import type {
  NetworkView,
  NightPicture,
  StorageView,
  UpkeepView
} from '../../../core/devices/upkeep.ts'
import {
  SURROUNDINGS,
  type Surroundings,
  type SurroundingsSwitch
} from '../../../core/sites/surroundings.ts'
import {
  child,
  children,
  content,
  down,
  xml,
  type Element
} from '../../../core/formats/onvif/xml.ts'
import { ifOffered } from './deviceError.ts'
import type { DeviceWire } from './wire.ts'

/** Infra-red filter in front of the sensor: in, the picture has colour; out, it sees infra-red. */
const FILTER: Readonly<Record<NightPicture, string>> = { auto: 'AUTO', day: 'ON', night: 'OFF' }

/** As docs/device-extension.md has it. */
const SURROUNDED: Readonly<Record<Surroundings, string>> = {
  outdoors: 'Outdoors',
  indoors: 'Indoors',
  roofed: 'Roofed'
}

const texts = (elements: readonly Element[], ...path: string[]): string[] =>
  elements.flatMap((e) => down(e, ...path)?.text || [])

const WHEN_FULL: Readonly<Record<string, StorageView['whenFull']>> = {
  Overwrite: 'overwrite',
  Stop: 'stop'
}
const OUTSIDE_EVENTS: Readonly<Record<string, StorageView['outsideEvents']>> = {
  Nothing: 'nothing',
  KeyFrames: 'keyFrames',
  All: 'all'
}
const megabytes = (text: string): number | null =>
  /^\d{1,12}$/.test(text) ? Number(text) * 1e6 : null

/** Addresses of hosts as the standard has them: by number or by name. */
const hostsOf = (information: Element | undefined): string[] =>
  [
    ...children(information, 'NTPManual'),
    ...children(information, 'NTPFromDHCP'),
    ...children(information, 'DNSManual'),
    ...children(information, 'DNSFromDHCP')
  ].flatMap(
    (e) =>
      child(e, 'IPv4Address')?.text ||
      child(e, 'IPv6Address')?.text ||
      child(e, 'DNSname')?.text ||
      []
  )

/**
 * What of a device is looked after besides its rules, by the open standard. Source: ONVIF Core Specification (device
 * management) and Imaging Service Specification (from memory).
 */
export class DeviceUpkeep {
  private readonly wire: DeviceWire

  constructor(wire: DeviceWire) {
    this.wire = wire
  }

  /** How its clock is set; null: it does not say. @param timeZone of the site */
  async clock(timeZone: string): Promise<UpkeepView['clock']> {
    const answer = await ifOffered(this.wire.call('device', xml('tds:GetSystemDateAndTime')))
    const time = child(answer, 'SystemDateAndTime')
    const type = child(time, 'DateTimeType')?.text
    if (!type) return null
    const zone = down(time, 'TimeZone', 'TZ')?.text || null
    const ofSite = zone !== null && isSameZone(zone, posixZone(timeZone, Date.now()))
    return { byNtp: type === 'NTP', zone, ofSite }
  }

  /**
   * Sets its clock.
   *
   * @param at the time, ms of UTC @param timeZone of the site, which it shows
   * @param ntp the server that it asks from now on; null: none
   * @throws DeviceError
   */
  async setClock(at: number, timeZone: string, ntp: string | null): Promise<void> {
    if (ntp !== null) await this.wire.call('device', setNtp(ntp))
    const utc = new Date(at)
    const numbers = (name: string, parts: Readonly<Record<string, number>>): string =>
      xml(
        name,
        {},
        ...Object.entries(parts).map(([part, value]) => xml(`tt:${part}`, {}, String(value)))
      )
    await this.wire.call(
      'device',
      xml(
        'tds:SetSystemDateAndTime',
        {},
        xml('tds:DateTimeType', {}, ntp === null ? 'Manual' : 'NTP'),
        xml('tds:DaylightSavings', {}, String(isSummerTime(timeZone, at))),
        xml('tds:TimeZone', {}, xml('tt:TZ', {}, content(posixZone(timeZone, at)))),
        ntp === null
          ? xml(
              'tds:UTCDateTime',
              {},
              numbers('tt:Time', {
                Hour: utc.getUTCHours(),
                Minute: utc.getUTCMinutes(),
                Second: utc.getUTCSeconds()
              }),
              numbers('tt:Date', {
                Year: utc.getUTCFullYear(),
                Month: utc.getUTCMonth() + 1,
                Day: utc.getUTCDate()
              })
            )
          : ''
      )
    )
  }

  /** Null: it says nothing of it. */
  async network(): Promise<NetworkView | null> {
    const ask = (action: string): Promise<Element | undefined> =>
      ifOffered(this.wire.call('device', xml(`tds:${action}`)))
    const interfaces = await ask('GetNetworkInterfaces')
    const gateway = await ask('GetNetworkDefaultGateway')
    const dns = await ask('GetDNS')
    const ntp = await ask('GetNTP')
    if (!interfaces && !gateway && !dns && !ntp) return null
    const of = child(gateway, 'NetworkGateway')
    return {
      addresses: children(interfaces, 'NetworkInterfaces').flatMap((one) =>
        ['IPv4', 'IPv6'].flatMap((family) => {
          const config = down(one, family, 'Config')
          return ['Manual', 'FromDHCP', 'LinkLocal'].flatMap((from) =>
            children(config, from).flatMap((a) => {
              const address = child(a, 'Address')?.text
              return address ? `${address}/${child(a, 'PrefixLength')?.text ?? ''}` : []
            })
          )
        })
      ),
      gateways: texts([...children(of, 'IPv4Address'), ...children(of, 'IPv6Address')]),
      dns: hostsOf(child(dns, 'DNSInformation')),
      ntp: hostsOf(child(ntp, 'NTPInformation'))
    }
  }

  /** When a picture is the infra-red one. @param source the token of its video source @returns null: it does not say */
  async nightPicture(source: string): Promise<NightPicture | null> {
    if (!(await this.wire.has('imaging'))) return null
    const answer = await ifOffered(
      this.wire.call(
        'imaging',
        xml('timg:GetImagingSettings', {}, xml('timg:VideoSourceToken', {}, content(source)))
      )
    )
    const filter = down(answer, 'ImagingSettings', 'IrCutFilter')?.text
    const [found] = Object.entries(FILTER).find(([, value]) => value === filter) ?? []
    return (found as NightPicture | undefined) ?? null
  }

  /** @throws DeviceError */
  async setNightPicture(source: string, mode: NightPicture): Promise<void> {
    await this.wire.call(
      'imaging',
      xml(
        'timg:SetImagingSettings',
        {},
        xml('timg:VideoSourceToken', {}, content(source)),
        xml('timg:ImagingSettings', {}, xml('tt:IrCutFilter', {}, FILTER[mode])),
        xml('timg:ForcePersistence', {}, 'true')
      )
    )
  }

  /** Where it can record to, and, by docs/device-extension.md, how much room is there; null: it does not say. */
  async storage(): Promise<StorageView[] | null> {
    const answer = await ifOffered(this.wire.call('device', xml('tds:GetStorageConfigurations')))
    if (!answer) return null
    const more = (await this.wire.has('outputs'))
      ? children(await ifOffered(this.wire.call('outputs', xml('wo:GetStorage'))), 'Storage')
      : []
    return children(answer, 'StorageConfigurations').map((one) => {
      const { token = '' } = one.attributes
      const data = child(one, 'Data')
      const place = child(data, 'LocalPath')?.text || child(data, 'StorageUri')?.text
      const details = more.find(({ attributes }) => attributes.token === token)
      const say = (name: string): string => child(details, name)?.text ?? ''
      return {
        place: place || data?.attributes.type || token,
        bytes: megabytes(say('Size')),
        free: megabytes(say('Free')),
        whenFull: WHEN_FULL[say('WhenFull')] ?? null,
        outsideEvents: OUTSIDE_EVENTS[say('OutsideEvents')] ?? null,
        before: secondsIn(say('Before')),
        after: secondsIn(say('After'))
      }
    })
  }

  /** Its switch for where a channel looks, by docs/device-extension.md; null: it has none. */
  async surroundings(channel: string): Promise<SurroundingsSwitch | null> {
    if (!(await this.wire.has('outputs'))) return null
    const answer = child(
      await ifOffered(this.wire.call('outputs', xml('wo:GetSurroundings', {}, ofChannel(channel)))),
      'Surroundings'
    )
    const words = answer?.attributes.Offered?.split(/\s+/) ?? []
    const offered = SURROUNDINGS.filter((s) => words.includes(SURROUNDED[s]))
    if (!offered.length) return null
    return { offered, held: offered.find((s) => SURROUNDED[s] === answer?.text) ?? null }
  }

  /** @throws DeviceError */
  async setSurroundings(channel: string, to: Surroundings): Promise<void> {
    await this.wire.call(
      'outputs',
      xml('wo:SetSurroundings', {}, ofChannel(channel), xml('wo:Surroundings', {}, SURROUNDED[to]))
    )
  }

  /** Names of its accounts, in order; null: it does not say. */
  async accounts(): Promise<string[] | null> {
    const users = await this.users()
    return users
      ? children(users, 'User')
          .flatMap((user) => child(user, 'Username')?.text || [])
          .sort()
      : null
  }

  private users(): Promise<Element | undefined> {
    return ifOffered(this.wire.call('device', xml('tds:GetUsers')))
  }

  /** Gives an account of the device another password; what else it may do stays. @throws DeviceError */
  async setPassword(username: string, password: string): Promise<void> {
    const users = await this.users()
    const level = children(users, 'User').find((u) => child(u, 'Username')?.text === username)
    await this.wire.call(
      'device',
      xml(
        'tds:SetUser',
        {},
        xml(
          'tds:User',
          {},
          xml('tt:Username', {}, content(username)),
          xml('tt:Password', {}, content(password)),
          xml('tt:UserLevel', {}, child(level, 'UserLevel')?.text || 'Administrator')
        )
      )
    )
  }
}

const ofChannel = (channel: string): string => xml('wo:ConfigurationToken', {}, content(channel))

const setNtp = (host: string): string => {
  const type = /^[\d.]+$/.test(host) ? 'IPv4' : host.includes(':') ? 'IPv6' : 'DNS'
  const element = { IPv4: 'tt:IPv4Address', IPv6: 'tt:IPv6Address', DNS: 'tt:DNSname' }[type]
  return xml(
    'tds:SetNTP',
    {},
    xml('tds:FromDHCP', {}, 'false'),
    xml('tds:NTPManual', {}, xml('tt:Type', {}, type), xml(element, {}, content(host)))
  )
}
