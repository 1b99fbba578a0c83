import { coded, said } from '../../../core/messages/said.ts'
import { child, children, down, textAt, xml } from '../../../core/formats/onvif/xml.ts'
import type { DeviceWire } from './wire.ts'

export interface DeviceEvent {
  topic: string
  /** Whether it has changed, or is only told to who begins to listen. */
  initial: boolean
  /** Milliseconds of UTC, on the device's clock. */
  at: number
  /** The rule, or the input or output, that it is of. */
  rule: string
  /** The analysis that it is of; empty: none. */
  channel: string
  data: Record<string, string>
}

/** What happens on a device, as it says when it is asked at a pull point. */
export class DeviceEvents {
  private readonly wire: DeviceWire

  constructor(wire: DeviceWire) {
    this.wire = wire
  }

  /** Starts to listen; the address of the pull point. */
  async subscribe(): Promise<string> {
    const answer = await this.wire.call(
      'events',
      xml('tev:CreatePullPointSubscription', {}, xml('tev:InitialTerminationTime', {}, 'PT60S'))
    )
    return this.wire.own(
      textAt(answer, coded('places.deviceAnswer'), 'SubscriptionReference', 'Address'),
      said('places.pullPoint')
    )
  }

  /** What has happened since; waits up to `seconds` for something. */
  async pull(address: string, seconds: number): Promise<DeviceEvent[]> {
    const answer = await this.wire.ask(
      address,
      xml(
        'tev:PullMessages',
        {},
        xml('tev:Timeout', {}, `PT${seconds}S`),
        xml('tev:MessageLimit', {}, '100')
      ),
      true,
      this.wire.withinMs + seconds * 1000
    )
    return children(answer, 'NotificationMessage').map((notification) => {
      const message = down(notification, 'Message', 'Message')
      const items = (group: string): Record<string, string> =>
        Object.fromEntries(
          children(child(message, group), 'SimpleItem').map(({ attributes }) => [
            attributes.Name ?? '',
            attributes.Value ?? ''
          ])
        )
      const source = items('Source')
      return {
        topic: child(notification, 'Topic')?.text ?? '',
        initial: message?.attributes.PropertyOperation === 'Initialized',
        at: Date.parse(message?.attributes.UtcTime ?? ''),
        rule: source.Rule ?? source.InputToken ?? source.OutputToken ?? source.RelayToken ?? '',
        channel: source.VideoAnalyticsConfigurationToken ?? '',
        data: items('Data')
      }
    })
  }

  /** Keeps a pull point for another minute. */
  async renew(address: string): Promise<void> {
    await this.wire.ask(
      address,
      xml('wsnt:Renew', {}, xml('wsnt:TerminationTime', {}, 'PT60S')),
      true
    )
  }

  async unsubscribe(address: string): Promise<void> {
    await this.wire.ask(address, xml('wsnt:Unsubscribe'), true)
  }
}
