import { coded } from '../../../core/messages/said.ts'
import { simulators as msg } from '../../../core/messages/en/codes/simulators.ts'
import { child, children, textAt, xml } from '../../../core/formats/onvif/xml.ts'
import { Refusal } from '../refusal.ts'
import { text, type Handler } from './handler.ts'

/** Services by their namespaces. */
const SERVICES = [
  ['http://www.onvif.org/ver10/device/wsdl', 'device_service'],
  ['http://www.onvif.org/ver10/media/wsdl', 'media_service'],
  ['http://www.onvif.org/ver10/events/wsdl', 'event_service'],
  ['http://www.onvif.org/ver20/analytics/wsdl', 'analytics_service'],
  ['http://www.onvif.org/ver10/deviceIO/wsdl', 'deviceio_service'],
  ['http://wardoptic.example/device/1', 'outputs_service']
] as const

/** Device service. Source: ONVIF Core Specification, devicemgmt.wsdl (from memory). */
export const deviceHandlers: Record<string, Handler> = {
  GetSystemDateAndTime: ({ now }) => {
    const date = new Date(now())
    return xml(
      'tds:GetSystemDateAndTimeResponse',
      {},
      xml(
        'tds:SystemDateAndTime',
        {},
        text('tt:DateTimeType', 'NTP'),
        text('tt:DaylightSavings', false),
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
  GetServices: ({ address }) =>
    xml(
      'tds:GetServicesResponse',
      {},
      ...SERVICES.map(([namespace, path]) =>
        xml(
          'tds:Service',
          {},
          text('tds:Namespace', namespace),
          text('tds:XAddr', `${address}/onvif/${path}`),
          xml('tds:Version', {}, text('tt:Major', 2), text('tt:Minor', 60))
        )
      )
    ),
  GetCapabilities: ({ address }) => {
    const at = (name: string, path: string, ...more: string[]): string =>
      xml(`tt:${name}`, {}, text('tt:XAddr', `${address}/onvif/${path}`), ...more)
    return xml(
      'tds:GetCapabilitiesResponse',
      {},
      xml(
        'tds:Capabilities',
        {},
        at(
          'Analytics',
          'analytics_service',
          text('tt:RuleSupport', true),
          text('tt:AnalyticsModuleSupport', true)
        ),
        at('Device', 'device_service'),
        at(
          'Events',
          'event_service',
          text('tt:WSSubscriptionPolicySupport', false),
          text('tt:WSPullPointSupport', true),
          text('tt:WSPausableSubscriptionManagerInterfaceSupport', false)
        ),
        at('Media', 'media_service')
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
