import { makeApp } from '../../server/app.ts'
import { Database } from '../../server/database.ts'
import { cookieOf } from '../../server/testing/session.ts'
import { startMariaDb } from '../../server/launch/mariadb.ts'

/**
 * The server over a site of so many cameras: `server.ts FOLDER COUNT`. Says its address in one
 * line; SIGTERM ends it in order.
 */
const [folder, count] = process.argv.slice(2) as [string, string]
const mariadb = await startMariaDb(folder)
const database = await Database.open(mariadb.address)
const [counted] = await database.rows<{ sites: number }>('SELECT COUNT(*) AS sites FROM site')
if (!counted?.sites)
  await database.transaction(async (sql) => {
    await sql.run(
      "INSERT INTO site (id, name, time_zone, inputs) VALUES ('site', 'Many cameras', 'Europe/London', '[]')"
    )
    for (let n = 0; n < Number(count); n++)
      await sql.run(
        "INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES (?, 'site', ?, ?, '[]')",
        [`camera-${n}`, `Camera ${n}`, n]
      )
  })
const app = await makeApp({
  database,
  folder,
  mostClipBytes: 2 ** 20,
  simulators: null,
  places: [],
  log: true
})
app.devices.start()
const cookie = await cookieOf(database, 'installer')
const address = await app.http.listen({ port: 0, host: '127.0.0.1' })
process.stdout.write(`${JSON.stringify({ address, cookie, database: mariadb.address })}\n`)
process.on(
  'SIGTERM',
  () =>
    void (async () => {
      await app.close()
      await database.close()
      await mariadb.stop()
      process.exit(0)
    })()
)
