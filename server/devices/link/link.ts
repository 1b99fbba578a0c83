import { child, children, content, xml } from '../../../core/formats/onvif/xml.ts'
import { DeviceAnalysis } from './analysis.ts'
import { ifOffered } from './deviceError.ts'
import { DeviceEvents } from './events.ts'
import { InputsAndOutputs } from './inputsAndOutputs.ts'
import { DeviceMedia } from './media.ts'
import { DeviceRecordings } from './recordings.ts'
import { DeviceUpkeep } from './upkeep.ts'
import { DeviceWire, type Credentials } from './wire.ts'

export interface Information {
  manufacturer: string
  model: string
  firmware: string
  serial: string
}

/** What it takes to speak with a device. */
export interface Access {
  address: string
  account: { username: string; password: string } | null
  /** SHA-256 of the one that it must show over TLS; null: any. */
  certificate: string | null
}

/** Speaks the open standard with one device. Every call ends: with an answer, or with a DeviceError that says why not. */
export class DeviceLink {
  /** Clock, network, night picture and account. */
  readonly upkeep: DeviceUpkeep
  readonly analysis: DeviceAnalysis
  readonly events: DeviceEvents
  readonly io: InputsAndOutputs
  readonly media: DeviceMedia
  readonly recordings: DeviceRecordings
  private readonly wire: DeviceWire

  /**
   * @param address such as http://192.0.2.4 or https://127.0.0.1:8081
   * @param certificate SHA-256 of the one that it must show over TLS; null: any
   * @throws InputError for what is no address
   */
  constructor(
    address: string,
    credentials: Credentials | null,
    withinMs?: number,
    certificate: string | null = null
  ) {
    this.wire = new DeviceWire(address, credentials, withinMs, certificate)
    this.upkeep = new DeviceUpkeep(this.wire)
    this.analysis = new DeviceAnalysis(this.wire)
    this.events = new DeviceEvents(this.wire)
    this.io = new InputsAndOutputs(this.wire)
    this.media = new DeviceMedia(this.wire)
    this.recordings = new DeviceRecordings(this.wire)
  }

  /** SHA-256 of the certificate that the device has shown; null: none. */
  get certificate(): string | null {
    return this.wire.certificate
  }

  get address(): string {
    return this.wire.address
  }

  /** By how many seconds the device's clock is ahead of this one; null where it does not say. */
  clockAhead(): Promise<number | null> {
    return this.wire.clockAhead()
  }

  async information(): Promise<Information> {
    const answer = await ifOffered(this.wire.call('device', xml('tds:GetDeviceInformation')))
    const part = (name: string): string => child(answer, name)?.text ?? ''
    return {
      manufacturer: part('Manufacturer'),
      model: part('Model'),
      firmware: part('FirmwareVersion'),
      serial: part('SerialNumber')
    }
  }

  /** Makes the first account of a device fresh from the box. */
  async createAccount({ username, password }: Credentials): Promise<void> {
    await this.wire.call(
      'device',
      xml(
        'tds:CreateUsers',
        {},
        xml(
          'tds:User',
          {},
          xml('tt:Username', {}, content(username)),
          xml('tt:Password', {}, content(password)),
          xml('tt:UserLevel', {}, 'Administrator')
        )
      )
    )
  }

  async hasAccount(): Promise<boolean> {
    return children(await this.wire.call('device', xml('tds:GetUsers')), 'User').length > 0
  }
}
