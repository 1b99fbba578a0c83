import { createReadStream, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { readPlan, type Plan } from '../core/formats/plan.ts'
import type { Clips } from './clips/clips.ts'
import type { Database } from './database.ts'
import { saveDetection, saveEmail } from './detections/rows.ts'
import { readSite, saveSchedule } from './sites/rows.ts'

interface DemoSite {
  site: { id: string; name: string }
  plan: unknown
  emails: Record<string, string>
  clips: { camera: string; file: string; name: string; start: string }[]
}

const demoFile = new URL('../demo/plan.json', import.meta.url)

/** The site as a plan describes it, in one transaction. */
async function insertSite(database: Database, { id, name }: { id: string; name: string }, plan: Plan, emails: Record<string, string>): Promise<void> {
  await database.transaction(async (sql) => {
    const now = Date.now()
    await sql.run('INSERT INTO site (id, name, time_zone, latitude, longitude) VALUES (?, ?, ?, ?, ?)', [id, name, plan.timeZone, plan.position?.latitude ?? null, plan.position?.longitude ?? null])
    for (const schedule of plan.schedules) await saveSchedule(sql, id, schedule, 0, now)
    for (const [position, camera] of plan.cameras.entries()) {
      await sql.run('INSERT INTO camera (id, site_id, name, position, ignore_areas) VALUES (?, ?, ?, ?, ?)', [camera.id, id, camera.name, position, JSON.stringify(camera.ignore)])
      for (const [at, detection] of camera.detections.entries()) {
        await saveDetection(sql, camera.id, detection, at, 0, now)
        if (emails[detection.id]) await saveEmail(sql, camera.id, detection.id, emails[detection.id], 0, now)
      }
    }
  })
}

/** On the first start: the demo site with its clips, or a bare site with one camera. */
export async function seed(database: Database, clips: Clips, withDemo: boolean): Promise<void> {
  if (await readSite(database)) return
  if (!withDemo) {
    const bare = readPlan(JSON.stringify({ format: 'wardoptic-plan/1', timeZone: 'Europe/London', cameras: [{ id: 'camera-1', name: 'Camera 1' }] }))
    return insertSite(database, { id: 'site', name: 'New site' }, bare, {})
  }
  const demo = JSON.parse(readFileSync(demoFile, 'utf8')) as DemoSite
  await insertSite(database, demo.site, readPlan(JSON.stringify(demo.plan)), demo.emails)
  for (const clip of demo.clips) await clips.add(clip.camera, clip.name, Date.parse(clip.start), createReadStream(fileURLToPath(new URL(clip.file, demoFile))))
}
