import { randomUUID } from 'node:crypto'
import { createSocket, type Socket } from 'node:dgram'
import {
  DISCOVERY_GROUP,
  probeId,
  probeMatches,
  type ProbeMatch
} from '../core/formats/onvif/discovery.ts'

/**
 * Answers who asks for devices, on loopback only. Each device is answered for in a message of its own, as if it were
 * one on the network.
 *
 * @param port 0: any free one
 */
export async function answerProbes(
  port: number,
  devices: () => ProbeMatch[]
): Promise<{ port: number; close(): void }> {
  const socket: Socket = createSocket({ type: 'udp4', reuseAddr: true })
  socket.on('message', (bytes, from) => {
    const asked = probeId(bytes.toString('utf8'))
    if (asked !== null)
      for (const device of devices())
        socket.send(probeMatches(device, randomUUID(), asked), from.port, from.address)
  })
  // Bound to the group's address it hears what is sent to the group alone.
  await new Promise<void>((resolve, reject) => {
    socket.once('error', reject)
    socket.bind(port, DISCOVERY_GROUP, resolve)
  })
  socket.addMembership(DISCOVERY_GROUP, '127.0.0.1')
  socket.setMulticastInterface('127.0.0.1')
  return { port: socket.address().port, close: () => void socket.close() }
}
