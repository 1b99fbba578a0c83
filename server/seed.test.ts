import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { Clips } from './clips/service.ts'
import { Leftovers } from './files.ts'
import { seed } from './seed.ts'
import { eventually, startTestApp } from './testing/testApp.ts'

test('makes the demo site once: six cameras, the water’s edge, its schedule and mail', async () => {
  const t = await startTestApp({ withDemo: true, clipsOf: ['slipway'] })
  try {
    await seed(t.database, t.app.clips, true)
    await seed(t.database, t.app.clips, false)
    const { body: site } = await t.ask('GET', '/site')
    expect(site).toMatchObject({
      name: 'Skerrow Landing',
      timeZone: 'Europe/London',
      position: { latitude: 59, longitude: -3 }
    })
    expect(site.cameras.map((c: any) => c.name)).toEqual([
      'Slipway',
      'Vehicle lanes',
      'Fuel pontoon',
      'Waiting room',
      'Workshop yard',
      'Quay path'
    ])
    const { body: bench } = await t.ask('GET', '/cameras/slipway')
    expect(bench.detections.map((d: any) => [d.detection.name, d.actions.actions.links])).toEqual([
      ['Quay edge', ['strobe-mast', 'voice-mast', 'duty-mail', 'popup', 'record']]
    ])
    expect(bench.schedules.map((s: any) => s.schedule.name)).toEqual([
      'All week',
      'Lights',
      'Nights'
    ])
    expect(bench.clips.map((c: any) => [c.name, new Date(c.start).toISOString()])).toEqual([
      ['Morning on the slipway', '2026-11-24T08:12:00.000Z']
    ])
  } finally {
    await t.close()
  }
})

test('without demo data: a site that is set up by its first installer, with a camera of theirs', async () => {
  const t = await startTestApp({ withDemo: false })
  try {
    expect((await t.ask('GET', '/site')).body).toMatchObject({
      isSetUp: true,
      cameras: [{ id: 'camera-1', name: 'Camera 1', detections: 0, clips: 0, clip: null }]
    })
    expect((await t.ask('GET', '/cameras/camera-1')).body).toMatchObject({
      detections: [],
      schedules: [],
      clips: []
    })
  } finally {
    await t.close()
  }
})

test('resumes an interrupted analysis at the next start, and clears stray folders', async () => {
  const t = await startTestApp({ withDemo: true, clipsOf: ['slipway'] })
  try {
    await t.app.clips.close()
    const rows = await t.database.rows<{ id: string; state: string }>(
      "SELECT id, state FROM clip ORDER BY camera_id = 'slipway' DESC"
    )
    const [row] = rows as [{ id: string; state: string }]
    expect(row.state).toBe('analysing')
    for (const { id } of rows.slice(1)) await t.database.run('DELETE FROM clip WHERE id = ?', [id])
    mkdirSync(join(t.folder, 'clips', 'left-behind'))
    const next = new Clips(
      t.database,
      join(t.folder, 'clips'),
      2 ** 30,
      new Leftovers(t.database, () => {}),
      () => {}
    )
    await next.resume()
    expect(readdirSync(join(t.folder, 'clips'))).toEqual([row.id])
    while ((await next.read(row.id)).state === 'analysing')
      await new Promise((resolve) => setTimeout(resolve, 100))
    expect(await next.read(row.id)).toMatchObject({ state: 'ready', targets: 7 })
    await next.close()

    // A clip from before frames were measured has its measures made at the next start.
    const measures = next.file(row.id, 'measures.bin')
    rmSync(measures)
    const later = new Clips(
      t.database,
      join(t.folder, 'clips'),
      2 ** 30,
      new Leftovers(t.database, () => {}),
      () => {}
    )
    await later.resume()
    expect((await later.read(row.id)).state).toBe('analysing')
    await eventually(async () => (await later.read(row.id)).state === 'ready')
    expect(existsSync(measures)).toBe(true)
  } finally {
    await t.close()
  }
}, 600_000)
