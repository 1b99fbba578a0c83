/** Services that are told or asked over the network. */
export type Service = 'mail' | 'station' | 'web'

/** The address at which a service is, of the host and port that somebody has set up. */
export type Reach = (service: Service, host: string, port: number) => { host: string; port: number }

/** Every host is what it says. */
export const directly: Reach = (_, host, port) => ({ host, port })

/**
 * A host that has other ports at each start, such as one of simulators on this machine, goes by a name of its own.
 *
 * @param name of that host
 * @param ports where it listens now, on loopback
 */
export const withHost =
  (name: string, ports: Readonly<Record<Service, number>>): Reach =>
  (service, host, port) =>
    host === name ? { host: '127.0.0.1', port: ports[service] } : { host, port }
