import { isOutput, type Endpoint, type Mail } from '../formats/actions.ts'

/** Where the services and devices of a site are. */
export interface Surroundings {
  mail: Mail | null
  /** Addresses of devices (`http://192.168.1.20`), by id. */
  devices: ReadonlyMap<string, string>
  /** The host that stands for the simulators of this machine in settings; null: none run. */
  simulators: string | null
}

/** A device on loopback is one of the simulators: real ones are on the network. */
const isLoopback = (address: string): boolean =>
  URL.canParse(address) && /^(127(\.\d+){3}|localhost|\[::1\])$/.test(new URL(address).hostname)

/**
 * Whether an action reaches somebody or switches something: an output of a device, a monitoring station, people by
 * e-mail, a web address, unless a simulator is at its end. What stays within Wardoptic, or only reads from a device, is
 * none.
 */
export function isReal(endpoint: Endpoint, { mail, devices, simulators }: Surroundings): boolean {
  if (isOutput(endpoint)) {
    const address = devices.get(endpoint.device)
    return address !== undefined && !isLoopback(address)
  }
  if (endpoint.kind === 'email') return mail !== null && mail.host !== simulators
  if ('host' in endpoint) return endpoint.host !== simulators
  if ('url' in endpoint) return new URL(endpoint.url).hostname !== simulators
  return false
}
