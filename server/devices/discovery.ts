import { randomUUID } from 'node:crypto'
import { createSocket } from 'node:dgram'
import {
  DISCOVERY_GROUP,
  probe,
  readProbeMatches,
  type ProbeMatch
} from '../../core/formats/onvif/discovery.ts'

/** Where devices are asked for: from one of this machine's own addresses, at a port of the group. */
export interface Neighbourhood {
  from: string
  port: number
  /** Whatever answers there is a simulator. */
  simulated?: boolean
}

export interface Found extends ProbeMatch {
  simulated: boolean
}

const LISTENED_MS = 1500

/** Asks every neighbourhood for devices and gathers who answers within a moment, each address once. */
export async function findDevices(
  places: readonly Neighbourhood[],
  listenedMs = LISTENED_MS
): Promise<Found[]> {
  const found = new Map<string, Found>()
  await Promise.all(
    places.map(
      ({ from, port, simulated = false }) =>
        new Promise<void>((resolve) => {
          const socket = createSocket('udp4')
          const end = (): void => {
            socket.close()
            resolve()
          }
          socket.on('message', (bytes) => {
            for (const match of readProbeMatches(bytes.toString('utf8')))
              found.set(match.address, { ...match, simulated })
          })
          // A network that is not there is no reason to find nothing on the others.
          socket.once('error', end)
          socket.bind(0, from, () => {
            socket.off('error', end)
            socket.on('error', () => {})
            socket.setMulticastInterface(from)
            socket.send(probe(randomUUID()), port, DISCOVERY_GROUP)
            setTimeout(end, listenedMs)
          })
        })
    )
  )
  return [...found.values()].sort(
    (a, b) => a.name.localeCompare(b.name) || a.address.localeCompare(b.address)
  )
}
