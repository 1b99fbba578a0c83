import { makeApp } from '../app.ts'
import { Database, type DatabaseAddress } from '../database.ts'
import type { Simulators } from '../simulators.ts'

/**
 * The server as a process of its own, over a database that is there: to be killed hard. Says its
 * address in one line.
 */
const [address, name, folder, simulators] = process.argv.slice(2) as [
  string,
  string,
  string,
  string
]
const database = await Database.open(JSON.parse(address) as DatabaseAddress, name)
const app = await makeApp({
  database,
  folder,
  mostClipBytes: 2 ** 20,
  simulators: JSON.parse(simulators) as Simulators,
  places: [],
  log: true
})
process.stdout.write(`${await app.http.listen({ port: 0, host: '127.0.0.1' })}\n`)
