import { join } from 'node:path'
import { startDevices } from './devices.ts'
import { answerProbes } from './discovery.ts'
import { startMailbox } from './mailbox.ts'

/** The outside world on loopback, as one process. Says its ports in one JSON line, ends when its parent does. */
const [folder, withDevices] = process.argv.slice(2)
const mailbox = await startMailbox(join(folder, 'mailbox'))
const ended = new AbortController()
const devices = withDevices === 'devices' ? await startDevices(join(folder, 'devices'), new URL('../demo/', import.meta.url), ended.signal) : []
const probes = await answerProbes(0, () => devices.map(({ address, model }) => ({ address, name: model.name, hardware: model.model })))
const addresses = Object.fromEntries(devices.map((device) => [device.model.id, device.address]))
process.stdout.write(`${JSON.stringify({ smtpPort: mailbox.smtpPort, mailboxPort: mailbox.httpPort, discoveryPort: probes.port, devices: addresses })}\n`)

const end = (): void => {
  ended.abort()
  probes.close()
  void Promise.all([mailbox.close(), ...devices.map((device) => device.close())]).then(() => process.exit(0))
}
process.on('SIGTERM', end)
// Ctrl-C reaches the whole group; the parent decides the order of the end.
process.on('SIGINT', () => {})
process.stdin.on('end', end).resume()
