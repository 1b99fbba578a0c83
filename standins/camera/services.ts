import { InputError } from '../../core/errors.ts'
import { readRule, ruleXml, type RuleAbility } from '../../core/formats/onvif/rules.ts'
import { child, children, content, textAt, xml, type Element } from '../../core/formats/onvif/xml.ts'
import { notificationXml } from './events.ts'
import type { Device } from './device.ts'

/** A refusal with the standard's code. */
export class Refusal extends Error {
  readonly code: string

  constructor(code: string, reason: string) {
    super(reason)
    this.code = code
  }
}

type Handler = (device: Device, action: Element, path: string) => string | Promise<string>

const text = (name: string, value: string | number | boolean): string => xml(name, {}, content(value))

/** Questions that are answered without a token. Source: ONVIF Core Specification, access classes PRE_AUTH (from memory). */
export const OPEN_ACTIONS = new Set(['GetSystemDateAndTime', 'GetServices', 'GetCapabilities'])

const SERVICES = [
  ['http://www.onvif.org/ver10/device/wsdl', 'device_service'],
  ['http://www.onvif.org/ver10/media/wsdl', 'media_service'],
  ['http://www.onvif.org/ver10/events/wsdl', 'event_service'],
  ['http://www.onvif.org/ver20/analytics/wsdl', 'analytics_service'],
  ['http://www.onvif.org/ver10/deviceIO/wsdl', 'deviceio_service']
] as const

const describeRule = ({ type, most, parameters }: RuleAbility): string =>
  xml('tt:RuleDescription', { Name: type, ...(most !== null && { maxInstances: most }) }, xml('tt:Parameters', {}, ...parameters.map((Name) => xml('tt:SimpleItemDescription', { Name, Type: Name === 'ClassFilter' ? 'tt:StringList' : 'xs:float' }))))

const seconds = (duration: string, fallback: number): number => {
  const m = /^PT(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?$/.exec(duration)
  return m ? Number(m[1] ?? 0) * 60 + Number(m[2] ?? 0) : fallback
}

/** What a device answers to each question of the standard. Sources: the ONVIF WSDLs (from memory). */
export const handlers: Record<string, Handler> = {
  GetSystemDateAndTime: ({ now }) => {
    const date = new Date(now())
    return xml('tds:GetSystemDateAndTimeResponse', {}, xml('tds:SystemDateAndTime', {}, text('tt:DateTimeType', 'NTP'), text('tt:DaylightSavings', false), xml('tt:UTCDateTime', {}, xml('tt:Time', {}, text('tt:Hour', date.getUTCHours()), text('tt:Minute', date.getUTCMinutes()), text('tt:Second', date.getUTCSeconds())), xml('tt:Date', {}, text('tt:Year', date.getUTCFullYear()), text('tt:Month', date.getUTCMonth() + 1), text('tt:Day', date.getUTCDate())))))
  },
  GetDeviceInformation: ({ model }) => xml('tds:GetDeviceInformationResponse', {}, text('tds:Manufacturer', model.manufacturer), text('tds:Model', model.model), text('tds:FirmwareVersion', model.firmware), text('tds:SerialNumber', model.serial), text('tds:HardwareId', model.model)),
  GetServices: ({ address }) => xml('tds:GetServicesResponse', {}, ...SERVICES.map(([namespace, path]) => xml('tds:Service', {}, text('tds:Namespace', namespace), text('tds:XAddr', `${address}/onvif/${path}`), xml('tds:Version', {}, text('tt:Major', 2), text('tt:Minor', 60))))),
  GetCapabilities: ({ address }) => {
    const at = (name: string, path: string, ...more: string[]): string => xml(`tt:${name}`, {}, text('tt:XAddr', `${address}/onvif/${path}`), ...more)
    return xml('tds:GetCapabilitiesResponse', {}, xml('tds:Capabilities', {}, at('Analytics', 'analytics_service', text('tt:RuleSupport', true), text('tt:AnalyticsModuleSupport', false)), at('Device', 'device_service'), at('Events', 'event_service', text('tt:WSSubscriptionPolicySupport', false), text('tt:WSPullPointSupport', true), text('tt:WSPausableSubscriptionManagerInterfaceSupport', false)), at('Media', 'media_service')))
  },
  GetUsers: ({ state }) => xml('tds:GetUsersResponse', {}, ...state.accounts.map((a) => xml('tds:User', {}, text('tt:Username', a.username), text('tt:UserLevel', 'Administrator')))),
  CreateUsers: (device, action) => {
    for (const user of children(action, 'User')) {
      const [username, password] = [textAt(user, 'the user', 'Username'), child(user, 'Password')?.text ?? '']
      if (password.length < 8) throw new Refusal('ter:PasswordTooWeak', 'the password must have at least 8 characters')
      if (device.state.accounts.some((a) => a.username === username)) throw new Refusal('ter:UsernameClash', `${username} is there already`)
      device.state.accounts.push({ username, password })
    }
    device.save()
    return xml('tds:CreateUsersResponse')
  },
  GetRelayOutputs: ({ model }) => xml('tds:GetRelayOutputsResponse', {}, ...model.relays.map((token) => xml('tds:RelayOutputs', { token }, xml('tt:Properties', {}, text('tt:Mode', 'Monostable'), text('tt:DelayTime', 'PT3S'), text('tt:IdleState', 'open'))))),
  GetDigitalInputs: ({ model }) => xml('tmd:GetDigitalInputsResponse', {}, ...model.inputs.map((token) => xml('tmd:DigitalInputs', { token }))),
  GetProfiles: ({ size }) => xml('trt:GetProfilesResponse', {}, xml('trt:Profiles', { token: 'main', fixed: true }, text('tt:Name', 'Main'), xml('tt:VideoSourceConfiguration', { token: 'source' }, text('tt:Name', 'Source'), text('tt:UseCount', 1), text('tt:SourceToken', 'source'), xml('tt:Bounds', { x: 0, y: 0, ...size })), xml('tt:VideoEncoderConfiguration', { token: 'encoder' }, text('tt:Name', 'Encoder'), text('tt:UseCount', 1), text('tt:Encoding', 'JPEG'), xml('tt:Resolution', {}, text('tt:Width', size.width), text('tt:Height', size.height)), text('tt:Quality', 4), xml('tt:RateControl', {}, text('tt:FrameRateLimit', 10), text('tt:EncodingInterval', 1), text('tt:BitrateLimit', 4096)), text('tt:SessionTimeout', 'PT60S')), xml('tt:VideoAnalyticsConfiguration', { token: 'analytics' }, text('tt:Name', 'Analytics'), text('tt:UseCount', 1)))),
  GetVideoSources: ({ size }) => xml('trt:GetVideoSourcesResponse', {}, xml('trt:VideoSources', { token: 'source' }, text('tt:Framerate', 10), xml('tt:Resolution', {}, text('tt:Width', size.width), text('tt:Height', size.height)))),
  GetSnapshotUri: ({ address }) => xml('trt:GetSnapshotUriResponse', {}, xml('trt:MediaUri', {}, text('tt:Uri', `${address}/snapshot.jpg`), text('tt:InvalidAfterConnect', false), text('tt:InvalidAfterReboot', false), text('tt:Timeout', 'PT60S'))),
  GetSupportedRules: ({ abilities }) => xml('tan:GetSupportedRulesResponse', {}, xml('tan:SupportedRules', {}, ...abilities.map(describeRule))),
  GetRuleOptions: ({ abilities }) => xml('tan:GetRuleOptionsResponse', {}, ...abilities.flatMap(({ type, ranges }) => Object.entries(ranges).map(([Name, { min, max }]) => xml('tan:RuleOptions', { RuleType: type, Name, Type: 'xs:float' }, xml('tt:FloatRange', {}, text('tt:Min', min), text('tt:Max', max)))))),
  GetRules: ({ state }) => xml('tan:GetRulesResponse', {}, ...state.rules.map(ruleXml)),
  CreateRules: (device, action) => {
    const rules = children(action, 'Rule').map(readRule)
    // All of them or none: each is checked with those before it, and only then are they kept.
    const after = [...device.state.rules]
    for (const rule of rules) {
      if (after.some((r) => r.name === rule.name)) throw new Refusal('ter:RuleAlreadyExistent', `rule ${rule.name} is there already`)
      after.push(rule)
      device.check(rule, after)
    }
    device.keepRules(after)
    return xml('tan:CreateRulesResponse')
  },
  ModifyRules: (device, action) => {
    const after = [...device.state.rules]
    for (const rule of children(action, 'Rule').map(readRule)) {
      const at = after.findIndex((r) => r.name === rule.name)
      if (at < 0) throw new Refusal('ter:RuleNotExistent', `there is no rule ${rule.name}`)
      after[at] = rule
      device.check(rule, after)
    }
    device.keepRules(after)
    return xml('tan:ModifyRulesResponse')
  },
  DeleteRules: (device, action) => {
    const names = children(action, 'RuleName').map((e) => e.text)
    const missing = names.find((name) => !device.state.rules.some((r) => r.name === name))
    if (missing !== undefined) throw new Refusal('ter:RuleNotExistent', `there is no rule ${missing}`)
    device.keepRules(device.state.rules.filter((r) => !names.includes(r.name)))
    return xml('tan:DeleteRulesResponse')
  },
  CreatePullPointSubscription: (device, action) => {
    const now = device.now()
    const lasts = seconds(child(action, 'InitialTerminationTime')?.text ?? '', 60)
    const id = device.pullPoints.create(now, lasts)
    return xml('tev:CreatePullPointSubscriptionResponse', {}, xml('tev:SubscriptionReference', {}, text('wsa:Address', `${device.address}/onvif/pull/${id}`)), text('wsnt:CurrentTime', new Date(now).toISOString()), text('wsnt:TerminationTime', new Date(now + lasts * 1000).toISOString()))
  },
  PullMessages: async (device, action, path) => {
    const wait = Math.min(60, seconds(child(action, 'Timeout')?.text ?? '', 5))
    const list = await device.pullPoints.pull(idOf(path), device.now(), wait * 1000, Number(child(action, 'MessageLimit')?.text ?? 100) || 100)
    if (!list) throw new Refusal('ter:InvalidArgVal', 'there is no such pull point; it may have ended')
    const now = device.now()
    return xml('tev:PullMessagesResponse', {}, text('tev:CurrentTime', new Date(now).toISOString()), text('tev:TerminationTime', new Date(now + 60_000).toISOString()), ...list.map(notificationXml))
  },
  Renew: (device, action, path) => {
    const lasts = seconds(child(action, 'TerminationTime')?.text ?? '', 60)
    if (!device.pullPoints.renew(idOf(path), device.now(), lasts)) throw new Refusal('ter:InvalidArgVal', 'there is no such pull point; it may have ended')
    return xml('wsnt:RenewResponse', {}, text('wsnt:TerminationTime', new Date(device.now() + lasts * 1000).toISOString()))
  },
  Unsubscribe: (device, _action, path) => {
    device.pullPoints.end(idOf(path))
    return xml('wsnt:UnsubscribeResponse')
  },
  GetEventProperties: () => {
    const topics = xml('wstop:TopicSet', { 'xmlns:wstop': 'http://docs.oasis-open.org/wsn/t-1' }, xml('tns1:RuleEngine', {}, xml('LineDetector', {}, xml('Crossed', { 'wstop:topic': true })), xml('FieldDetector', {}, xml('ObjectsInside', { 'wstop:topic': true })), xml('CellMotionDetector', {}, xml('Motion', { 'wstop:topic': true })), xml('TamperDetector', {}, xml('Tamper', { 'wstop:topic': true }))))
    return xml('tev:GetEventPropertiesResponse', {}, text('wsnt:FixedTopicSet', true), topics)
  }
}

const idOf = (path: string): string => path.split('/').pop() ?? ''

/** Answers an action. @throws Refusal for one that is not known, or that is refused */
export async function answer(device: Device, action: Element, path: string): Promise<string> {
  const handler = handlers[action.name]
  if (!handler) throw new Refusal('ter:ActionNotSupported', `${action.name.slice(0, 60)} is not supported`)
  try {
    return await handler(device, action, path)
  } catch (error) {
    if (error instanceof InputError) throw new Refusal('ter:InvalidArgVal', error.message)
    throw error
  }
}

