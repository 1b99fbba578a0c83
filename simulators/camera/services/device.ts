import { coded } from '../../../core/messages/said.ts'
import { simulators as msg } from '../../../core/messages/en/codes/simulators.ts'
import { child, children, textAt, xml } from '../../../core/formats/onvif/xml.ts'
import { scopesOf } from '../../../core/formats/onvif/discovery.ts'
import { Refusal } from '../refusal.ts'
import { text, type Handler, type Served } from './handler.ts'

export const MEDIA2_PATH = 'media2_service'

/** Services by their namespaces, each with whether a device has it. */
const SERVICES: readonly (readonly [string, string, (device: Served) => boolean])[] = [
  ['http://www.onvif.org/ver10/device/wsdl', 'device_service', () => true],
  ['http://www.onvif.org/ver10/media/wsdl', 'media_service', () => true],
  ['http://www.onvif.org/ver20/media/wsdl', MEDIA2_PATH, ({ model }) => model.media2],
  ['http://www.onvif.org/ver10/events/wsdl', 'event_service', (d) => d.has('events')],
  ['http://www.onvif.org/ver20/analytics/wsdl', 'analytics_service', (d) => d.has('analytics')],
  ['http://www.onvif.org/ver20/imaging/wsdl', 'imaging_service', (d) => d.has('imaging')],
  ['http://www.onvif.org/ver10/deviceIO/wsdl', 'deviceio_service', (d) => d.has('outputs')],
  ['http://www.onvif.org/ver10/recording/wsdl', 'recording_service', (d) => d.has('storage')],
  ['http://wardoptic.example/device/1', 'outputs_service', (d) => d.has('outputs')]
]

/** Device service. Source: ONVIF Core Specification, devicemgmt.wsdl (from memory). */
export const deviceHandlers: Record<string, Handler> = {
  GetSystemDateAndTime: ({ now, state }) => {
    const date = new Date(now())
    return xml(
      'tds:GetSystemDateAndTimeResponse',
      {},
      xml(
        'tds:SystemDateAndTime',
        {},
        text('tt:DateTimeType', state.clock && state.clock.ntp === null ? 'Manual' : 'NTP'),
        text('tt:DaylightSavings', false),
        xml('tt:TimeZone', {}, text('tt:TZ', state.clock?.zone ?? 'UTC0')),
        xml(
          'tt:UTCDateTime',
          {},
          xml(
            'tt:Time',
            {},
            text('tt:Hour', date.getUTCHours()),
            text('tt:Minute', date.getUTCMinutes()),
            text('tt:Second', date.getUTCSeconds())
          ),
          xml(
            'tt:Date',
            {},
            text('tt:Year', date.getUTCFullYear()),
            text('tt:Month', date.getUTCMonth() + 1),
            text('tt:Day', date.getUTCDate())
          )
        )
      )
    )
  },
  GetDeviceInformation: ({ model }) =>
    xml(
      'tds:GetDeviceInformationResponse',
      {},
      text('tds:Manufacturer', model.manufacturer),
      text('tds:Model', model.model),
      text('tds:FirmwareVersion', model.firmware),
      text('tds:SerialNumber', model.serial),
      text('tds:HardwareId', model.model)
    ),
  GetServices: (device) =>
    xml(
      'tds:GetServicesResponse',
      {},
      ...SERVICES.filter(([, , isThere]) => isThere(device)).map(([namespace, path]) =>
        xml(
          'tds:Service',
          {},
          text('tds:Namespace', namespace),
          text('tds:XAddr', `${device.address}/onvif/${path}`),
          xml('tds:Version', {}, text('tt:Major', 2), text('tt:Minor', 60))
        )
      )
    ),
  GetCapabilities: (device) => {
    const at = (name: string, path: string, ...more: string[]): string =>
      xml(`tt:${name}`, {}, text('tt:XAddr', `${device.address}/onvif/${path}`), ...more)
    return xml(
      'tds:GetCapabilitiesResponse',
      {},
      xml(
        'tds:Capabilities',
        {},
        device.has('analytics')
          ? at(
              'Analytics',
              'analytics_service',
              text('tt:RuleSupport', true),
              text('tt:AnalyticsModuleSupport', true)
            )
          : '',
        at('Device', 'device_service'),
        device.has('events')
          ? at(
              'Events',
              'event_service',
              text('tt:WSSubscriptionPolicySupport', false),
              text('tt:WSPullPointSupport', true),
              text('tt:WSPausableSubscriptionManagerInterfaceSupport', false)
            )
          : '',
        device.has('imaging') ? at('Imaging', 'imaging_service') : '',
        at(
          'Media',
          'media_service',
          xml(
            'tt:StreamingCapabilities',
            {},
            text('tt:RTPMulticast', false),
            text('tt:RTP_TCP', device.streams !== null),
            text('tt:RTP_RTSP_TCP', device.streams !== null)
          )
        )
      )
    )
  },
  GetNetworkInterfaces: ({ address }) =>
    xml(
      'tds:GetNetworkInterfacesResponse',
      {},
      xml(
        'tds:NetworkInterfaces',
        { token: 'lo' },
        text('tt:Enabled', true),
        xml(
          'tt:IPv4',
          {},
          text('tt:Enabled', true),
          xml(
            'tt:Config',
            {},
            xml(
              'tt:Manual',
              {},
              text('tt:Address', new URL(address).hostname),
              text('tt:PrefixLength', 8)
            ),
            text('tt:DHCP', false)
          )
        )
      )
    ),
  SetSystemDateAndTime: (device, action) => {
    const zone = textAt(action, coded('places.message'), 'TimeZone', 'TZ')
    const utc = child(action, 'UTCDateTime')
    const byNtp = textAt(action, coded('places.message'), 'DateTimeType') === 'NTP'
    if (!byNtp && !utc) throw new Refusal('ter:InvalidDateTime', msg.noTimeGiven)
    const part = (group: string, name: string): number =>
      Number(textAt(utc, coded('places.message'), group, name))
    const given = byNtp
      ? Date.now()
      : Date.UTC(
          part('Date', 'Year'),
          part('Date', 'Month') - 1,
          part('Date', 'Day'),
          part('Time', 'Hour'),
          part('Time', 'Minute'),
          part('Time', 'Second')
        )
    const ntp = byNtp ? (device.state.clock?.ntp ?? 'pool.example') : null
    device.state.clock = { off: Math.round((given - Date.now()) / 1000), ntp, zone }
    device.save()
    return xml('tds:SetSystemDateAndTimeResponse')
  },
  GetNTP: ({ state }) =>
    xml(
      'tds:GetNTPResponse',
      {},
      xml(
        'tds:NTPInformation',
        {},
        text('tt:FromDHCP', false),
        state.clock?.ntp
          ? xml('tt:NTPManual', {}, text('tt:Type', 'DNS'), text('tt:DNSname', state.clock.ntp))
          : ''
      )
    ),
  SetNTP: (device, action) => {
    const manual = child(action, 'NTPManual')
    const host = ['IPv4Address', 'IPv6Address', 'DNSname'].flatMap(
      (name) => child(manual, name)?.text || []
    )[0]
    const { off = 0, zone = null } = device.state.clock ?? {}
    device.state.clock = { off, zone, ntp: host ?? null }
    device.save()
    return xml('tds:SetNTPResponse')
  },
  GetDNS: () =>
    xml(
      'tds:GetDNSResponse',
      {},
      xml(
        'tds:DNSInformation',
        {},
        text('tt:FromDHCP', false),
        xml('tt:DNSManual', {}, text('tt:Type', 'IPv4'), text('tt:IPv4Address', '192.0.2.53'))
      )
    ),
  GetNetworkDefaultGateway: () =>
    xml(
      'tds:GetNetworkDefaultGatewayResponse',
      {},
      xml('tds:NetworkGateway', {}, text('tt:IPv4Address', '192.0.2.1'))
    ),
  SetUser: (device, action) => {
    for (const user of children(action, 'User')) {
      const username = textAt(user, coded('places.user'), 'Username')
      const password = child(user, 'Password')?.text ?? ''
      const known = device.state.accounts.find((a) => a.username === username)
      if (!known) throw new Refusal('ter:UsernameMissing', msg.noSuchUser(username))
      if (password.length < 8) throw new Refusal('ter:PasswordTooWeak', msg.thePasswordMustHaveAt)
      known.password = password
    }
    device.save()
    return xml('tds:SetUserResponse')
  },
  GetScopes: ({ model }) =>
    xml(
      'tds:GetScopesResponse',
      {},
      ...scopesOf(model.name, model.model).map((scope) =>
        xml('tds:Scopes', {}, text('tt:ScopeDef', 'Fixed'), text('tt:ScopeItem', scope))
      )
    ),
  GetHostname: ({ model }) =>
    xml(
      'tds:GetHostnameResponse',
      {},
      xml('tds:HostnameInformation', {}, text('tt:FromDHCP', false), text('tt:Name', model.id))
    ),
  GetUsers: ({ state }) =>
    xml(
      'tds:GetUsersResponse',
      {},
      ...state.accounts.map((a) =>
        xml('tds:User', {}, text('tt:Username', a.username), text('tt:UserLevel', 'Administrator'))
      )
    ),
  CreateUsers: (device, action) => {
    for (const user of children(action, 'User')) {
      const [username, password] = [
        textAt(user, coded('places.user'), 'Username'),
        child(user, 'Password')?.text ?? ''
      ]
      if (password.length < 8) throw new Refusal('ter:PasswordTooWeak', msg.thePasswordMustHaveAt)
      if (device.state.accounts.some((a) => a.username === username))
        throw new Refusal('ter:UsernameClash', msg.isThereAlready(username))
      device.state.accounts.push({ username, password })
    }
    device.save()
    return xml('tds:CreateUsersResponse')
  }
}
