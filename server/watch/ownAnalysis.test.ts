import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { AnalysisView } from '../../core/lookBack/settings.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { readRange } from '../lookBack/hours.ts'
import { readPictures } from '../lookBack/pictureFile.ts'
import { picturesOnly } from '../testing/poorAnswers.ts'
import { PoorDevice } from '../testing/poorDevice.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'
import { OwnAnalysis, mostAnalyses } from './ownAnalysis.ts'

const devices = new TestDevices()
let t: TestApp
const folder = (): string => `${t.folder}/look-back`
/** A camera with pictures over RTSP and nothing else, and one that reports targets. */
beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
  for (const id of ['cam-gate', 'cam-slipway'])
    expect((await t.ask('POST', '/devices', asAdded(await devices.start(id)))).status).toBe(201)
}, 600_000)
afterAll(async () => {
  await t.close()
  await devices.close()
})

const save = async (change: object) => {
  const { lookBack, version } = (await t.ask('GET', '/settings/look-back')).body
  return t.ask('PUT', '/settings/look-back', { version, lookBack: { ...lookBack, ...change } })
}
const analyses = async (): Promise<AnalysisView[]> =>
  (await t.ask('GET', '/settings/look-back')).body.analyses

describe('cameras whose devices do not report what is in their pictures', () => {
  test('one that is to be analysed must be of the site', async () => {
    const { status, body } = await save({ analysed: ['elsewhere'] })
    expect(status).toBe(422)
    expect(body.path).toBe('$.lookBack.analysed[0]')
  })

  test('are analysed, and of those that are not it is said why', async () => {
    const analysed = ['vehicle-lanes', 'slipway', 'fuel-pontoon']
    const { status, body } = await save({ analysed })
    expect(status).toBe(200)
    expect(body).toMatchObject({
      most: mostAnalyses(),
      analyses: [
        { camera: 'vehicle-lanes', state: 'starting', rate: null },
        { camera: 'slipway', state: 'reports' },
        { camera: 'fuel-pontoon', state: 'away' }
      ]
    })
    const [running] = await eventually(async () => {
      const now = await analyses()
      return now[0]!.state === 'running' && now
    })
    expect(running!.rate).toBeGreaterThan(0)
  }, 600_000)

  test('waits where the machine can do no more', async () => {
    const keeper = { folder: folder(), hourOver: () => {} }
    const errors: unknown[] = []
    const full = new OwnAnalysis(t.database, t.app.devices, keeper, (e) => errors.push(e), 0)
    await full.look()
    expect(full.view(['vehicle-lanes']).analyses[0]!.state).toBe('waiting')
    await full.close()
    expect(errors).toEqual([])
  })

  test('not where a device gives single pictures alone', async () => {
    const { GetStreamUri, ...rest } = picturesOnly('rtsp://10.0.0.9/live')
    expect(GetStreamUri).toBeTruthy()
    const single = await new PoorDevice(rest).start()
    const { body } = await t.ask('POST', '/devices', {
      name: 'Attic camera',
      address: single.address,
      makeCameras: true,
      username: 'admin',
      password: 'x'
    })
    const { camera } = body.channels[0]
    await save({ analysed: ['vehicle-lanes', camera] })
    await eventually(async () => (await analyses())[1]!.state === 'noStream')
    await save({ analysed: ['vehicle-lanes'] })
    await single.close()
  }, 600_000)

  test('what is found is kept as if the camera had reported it, with pictures', async () => {
    const from = Date.now() - 600_000
    const rows = await eventually(async () => {
      const kept = await readRange(folder(), 'vehicle-lanes', from, Date.now() + 1000)
      return kept.rows.length > 50 && kept
    })
    expect(rows.heard.length).toBeGreaterThan(0)
    for (const list of ['x', 'y', 'w', 'h'] as const)
      for (const share of rows.rows[list]) {
        expect(share).toBeGreaterThanOrEqual(-0.01)
        expect(share).toBeLessThanOrEqual(1.01)
      }
    for (let i = 1; i < rows.rows.length; i++)
      expect(rows.rows.at[i]).toBeGreaterThanOrEqual(rows.rows.at[i - 1]!)
    const pictures = await eventually(async () => {
      const taken = await readPictures(folder(), 'vehicle-lanes', from, Date.now() + 1000)
      return taken.length > 0 && taken
    })
    expect(pictures[0]!.jpeg.subarray(0, 2)).toEqual(Buffer.from([0xff, 0xd8]))
  }, 600_000)

  test('what is in its pictures is seen live, as where a device says it', async () => {
    const { devices } = t.app
    const found = (await devices.channelShowing('vehicle-lanes'))!
    expect(found.channel.hasMetadata).toBe(false)
    expect(devices.saysTargets(found)).toBe(true)
    const enough = new AbortController()
    let frames = 0
    for await (const { at, targets } of devices.targets(found, enough.signal)) {
      expect(Math.abs(Date.now() - at)).toBeLessThan(60_000)
      frames++
      for (const { x, y, w, h } of targets)
        for (const share of [x, y, w, h]) expect(share).toBeLessThanOrEqual(1.01)
      if (targets.length && frames > 3) enough.abort()
    }
    expect(frames).toBeGreaterThan(3)
    // The same is what the page is told.
    const page = new AbortController()
    const live = await t.fetch('/cameras/vehicle-lanes/live', { signal: page.signal })
    let text = ''
    for await (const part of live.body!) {
      text += Buffer.from(part).toString()
      if (text.includes('event: targets')) break
    }
    page.abort()
    expect(text).toContain('event: targets')
  }, 600_000)

  test('of one that is left out nothing stays, and nothing comes any more', async () => {
    const { status } = await save({ analysed: ['vehicle-lanes'], without: ['vehicle-lanes'] })
    expect(status).toBe(200)
    // It was written to until now: what came last is gone as well.
    expect(existsSync(join(folder(), 'vehicle-lanes'))).toBe(false)
    await wait(3000)
    expect(existsSync(join(folder(), 'vehicle-lanes'))).toBe(false)
  }, 600_000)

  test('the machine’s cores are shared with everything else', () => {
    expect([1, 2, 4, 8].map((cores) => mostAnalyses(cores))).toEqual([1, 2, 6, 14])
  })
})
