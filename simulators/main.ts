import { announcementOf } from './announcement.ts'
import { join } from 'node:path'
import { Contacts } from './contacts.ts'
import { startDevices } from './devices.ts'
import { answerProbes } from './discovery.ts'
import { startMailbox } from './mailbox.ts'
import { DEMO_CONTACTS, startPages } from './pages.ts'
import { Station } from './station.ts'

/** The outside world on loopback, as one process. Says its ports in one JSON line, ends when its parent does. */
const [folder] = process.argv.slice(2) as [string]
const mailbox = await startMailbox(join(folder, 'mailbox'))
const station = await new Station().start()
const contacts = new Contacts()
const ended = new AbortController()
const devices = await startDevices(
  join(folder, 'devices'),
  new URL('../demo/', import.meta.url),
  ended.signal,
  contacts
)
const pages = await startPages({
  station,
  contacts,
  held: DEMO_CONTACTS,
  devices,
  mailboxPort: mailbox.httpPort
})
const probes = await answerProbes(0, () =>
  devices.map(({ address, model }) => ({ address, name: model.name, hardware: model.model }))
)
const addresses = Object.fromEntries(devices.map((device) => [device.model.id, device.address]))
process.stdout.write(
  `${JSON.stringify({ ...announcementOf(mailbox, station, pages), discoveryPort: probes.port, devices: addresses })}\n`
)

let ending = false
const end = (): void => {
  // The signal and the end of the parent may both come.
  if (ending) return
  ending = true
  ended.abort()
  probes.close()
  void Promise.all([
    mailbox.close(),
    station.close(),
    pages.close(),
    ...devices.map((device) => device.close())
  ]).then(() => process.exit(0))
}
process.on('SIGTERM', end)
// Ctrl-C reaches the whole group; the parent decides the order of the end.
process.on('SIGINT', () => {})
process.stdin.on('end', end).resume()
