import type { Database } from '../../server/database.ts'

const DETECTIONS = 4
const TRIGGERS = 4000

/** A site with its cameras, a device and some detections each, and triggers of the past. */
export async function fillSite(database: Database, site: string, cameras: number): Promise<void> {
  await database.transaction(async (sql) => {
    await sql.run(
      "INSERT INTO site (id, name, time_zone, inputs, added_at) VALUES (?, ?, 'Europe/London', '[]', 0)",
      [site, site]
    )
    for (let n = 0; n < cameras; n++) {
      const camera = `${site}-camera-${n}`
      await sql.run(
        "INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES (?, ?, ?, ?, '[]')",
        [camera, site, `Camera ${n}`, n]
      )
      await sql.run(
        "INSERT INTO device (id, site_id, camera_id, name, address, state, added_at) VALUES (?, ?, ?, ?, ?, 'offline', 0)",
        [`${camera}-device`, site, camera, `Device ${n}`, `http://192.0.2.1/${camera}`]
      )
      for (let d = 0; d < DETECTIONS; d++)
        await sql.run(
          'INSERT INTO detection (camera_id, id, position, body, version, changed_at) VALUES (?, ?, ?, ?, 1, 0)',
          [
            camera,
            `d${d}`,
            d,
            JSON.stringify({
              id: `d${d}`,
              name: `D${d}`,
              kind: 'line',
              enabled: true,
              classes: ['person'],
              confirmSeconds: 0,
              holdOffSeconds: 0,
              sensitivity: 50,
              direction: 'both',
              line: [
                [0.1, 0.5],
                [0.9, 0.5]
              ]
            })
          ]
        )
    }
    await sql.run(
      `INSERT INTO fired_trigger (camera_id, detection_id, kind, fired_at, fired_with, source, severity)
         SELECT CONCAT(?, '-camera-', MOD(seq, ${cameras})), 'd0', 'line', 1700000000000 + seq * 60000, '{"name":"D0"}', 'sender', 'major' FROM seq_1_to_${TRIGGERS}`,
      [site]
    )
  })
}
