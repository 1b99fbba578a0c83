import { simulators as msg } from '../../../core/messages/en/codes/simulators.ts'
import { secondsIn } from '../../../core/formats/onvif/durations.ts'
import { child, xml } from '../../../core/formats/onvif/xml.ts'
import { notificationXml } from '../events.ts'
import { Refusal } from '../refusal.ts'
import { text, type Handler } from './handler.ts'

const idOf = (path: string): string => path.split('/').pop() ?? ''

/** Event service with pull points. Source: ONVIF Core Specification, events.wsdl (from memory). */
export const eventHandlers: Record<string, Handler> = {
  CreatePullPointSubscription: (device, action) => {
    const now = device.now()
    const lasts = secondsIn(child(action, 'InitialTerminationTime')?.text ?? '') ?? 60
    const id = device.pullPoints.create(now, lasts)
    // A property's value is told to who begins to listen. Source: ONVIF Core Specification, section 9.1 (from memory).
    for (const input of device.model.inputs)
      device.pullPoints.tell(id, device.inputEvent(input, 'Initialized'))
    return xml(
      'tev:CreatePullPointSubscriptionResponse',
      {},
      xml(
        'tev:SubscriptionReference',
        {},
        text('wsa:Address', `${device.address}/onvif/pull/${id}`)
      ),
      text('wsnt:CurrentTime', new Date(now).toISOString()),
      text('wsnt:TerminationTime', new Date(now + lasts * 1000).toISOString())
    )
  },
  PullMessages: async (device, action, path, gone) => {
    const wait = Math.min(60, secondsIn(child(action, 'Timeout')?.text ?? '') ?? 5)
    const list = await device.pullPoints.pull(
      idOf(path),
      device.now(),
      wait * 1000,
      Number(child(action, 'MessageLimit')?.text ?? 100) || 100,
      gone
    )
    if (!list) throw new Refusal('ter:InvalidArgVal', msg.thereIsNoSuchPull)
    const now = device.now()
    return xml(
      'tev:PullMessagesResponse',
      {},
      text('tev:CurrentTime', new Date(now).toISOString()),
      text('tev:TerminationTime', new Date(now + 60_000).toISOString()),
      ...list.map(notificationXml)
    )
  },
  Renew: (device, action, path) => {
    const lasts = secondsIn(child(action, 'TerminationTime')?.text ?? '') ?? 60
    if (!device.pullPoints.renew(idOf(path), device.now(), lasts))
      throw new Refusal('ter:InvalidArgVal', msg.thereIsNoSuchPull)
    return xml(
      'wsnt:RenewResponse',
      {},
      text('wsnt:TerminationTime', new Date(device.now() + lasts * 1000).toISOString())
    )
  },
  Unsubscribe: (device, _action, path) => {
    device.pullPoints.end(idOf(path))
    return xml('wsnt:UnsubscribeResponse')
  },
  GetEventProperties: () => {
    const topics = xml(
      'wstop:TopicSet',
      { 'xmlns:wstop': 'http://docs.oasis-open.org/wsn/t-1' },
      xml(
        'tns1:RuleEngine',
        {},
        xml('LineDetector', {}, xml('Crossed', { 'wstop:topic': true })),
        xml('FieldDetector', {}, xml('ObjectsInside', { 'wstop:topic': true })),
        xml('CellMotionDetector', {}, xml('Motion', { 'wstop:topic': true })),
        xml('TamperDetector', {}, xml('Tamper', { 'wstop:topic': true }))
      ),
      xml('tns1:Device', {}, xml('Trigger', {}, xml('DigitalInput', { 'wstop:topic': true })))
    )
    return xml('tev:GetEventPropertiesResponse', {}, text('wsnt:FixedTopicSet', true), topics)
  }
}
