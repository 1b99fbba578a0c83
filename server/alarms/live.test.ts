import { spawnSync } from 'node:child_process'
import { existsSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { wordsOf } from '../../core/messages/words.ts'
import type { Said } from '../../core/messages/said.ts'
import type { AlarmView, ClipView, EvidenceView, SiteActionsView } from '../../core/api.ts'
import type { DeviceView, SendingView } from '../../core/devices/views.ts'
import type { Device } from '../../simulators/camera/device.ts'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

/** Simulated devices, the real server: a scene moves, and everything follows. */
const devices = new TestDevices()
const IDS = ['cam-slipway', 'cam-path', 'recorder'] as const
let t: TestApp
const made = new Map<string, Device>()
beforeAll(async () => {
  t = await startTestApp({ withDemo: true })
  // The strobe may act at any time here, as tests run at any time.
  await change('strobe-mast', { schedule: undefined })
  for (const device of await devices.startSite(...IDS)) {
    made.set(device.model.id, device)
    await t.app.devices.add('skerrow', asAdded(device) as never, device.model.id)
  }
})
afterAll(async () => {
  await t.close()
  await devices.close()
})

const view = async (): Promise<SiteActionsView> => (await t.ask('GET', '/actions')).body
async function change(id: string, more: object): Promise<void> {
  const { endpoint, version } = (await view()).endpoints.find((e) => e.endpoint.id === id)!
  expect(
    (await t.ask('PUT', `/endpoints/${id}`, { version, endpoint: { ...endpoint, ...more } })).status
  ).toBe(200)
}
const edit = async (
  camera: string,
  detection: { id: string; [key: string]: unknown }
): Promise<void> => {
  const kept = (await t.ask('GET', `/cameras/${camera}`)).body.detections.find(
    (d: any) => d.detection.id === detection.id
  )
  expect(
    (
      await t.ask('PUT', `/cameras/${camera}/detections/${detection.id}`, {
        detection: { ...kept?.detection, ...detection },
        position: 0,
        version: kept?.version ?? 0
      })
    ).status
  ).toBe(200)
}
const link = async (
  camera: string,
  id: string,
  links: string[],
  more: object = {}
): Promise<void> => {
  const { version } = (await t.ask('GET', `/cameras/${camera}`)).body.detections.find(
    (d: any) => d.detection.id === id
  ).actions
  expect(
    (
      await t.ask('PUT', `/cameras/${camera}/detections/${id}/actions`, {
        version,
        actions: { links, ...more }
      })
    ).status
  ).toBe(200)
}
const send = async (device: string): Promise<SendingView> => {
  const { body } = await t.ask('POST', '/sendings', { devices: [device] })
  return eventually(async () => {
    const s = (await t.ask('GET', `/sendings/${body.id}`)).body
    return s.finished && s
  })
}
const alarmOf = (detection: string): Promise<AlarmView> =>
  eventually(async () =>
    (await t.ask('GET', '/alarms')).body.alarms.find((a: AlarmView) => a.detection === detection)
  )
const byKind = (a: AlarmView) =>
  Object.fromEntries([...a.deliveries].reverse().map((d) => [d.kind, d]))

describe('a rule triggers on a camera', () => {
  test('sends the plan with the outputs that the camera switches, and only then shows them so', async () => {
    await link('slipway', 'quay-edge', ['strobe-mast', 'voice-mast', 'floodlight', 'record'])
    await change('floodlight', { schedule: undefined, mode: 'untilAcknowledged' })
    expect((await view()).byCamera).toEqual([])
    const {
      devices: [sent]
    } = await send('cam-slipway')
    expect(sent!.results.map((r) => [r.name, r.what, r.error])).toEqual([
      ['Quay edge', 'created', null],
      ['Strobe on the mast', 'changed', null],
      ['Voice on the mast', 'changed', null]
    ])
    expect((await view()).byCamera.sort()).toEqual([
      'slipway quay-edge strobe-mast',
      'slipway quay-edge voice-mast'
    ])
    expect(made.get('cam-slipway')!.outputs.settingOf('strobe')).toMatchObject({
      settings: { Time: 'PT10S', Pattern: 'fast' },
      rules: ['analytics/quay-edge'],
      hours: ''
    })
    // Changed in the plan it waits to be sent again, and readiness says so.
    await change('strobe-mast', { seconds: 20 })
    const waiting = (): Promise<readonly (Said | string)[]> =>
      t
        .ask('GET', '/devices/cam-slipway')
        .then(({ body }) => (body as DeviceView).outputs.find((o) => o.token === 'strobe')!.waiting)
    expect(await waiting()).toEqual(['Time is PT10S, plan PT20S'])
    expect(
      (await t.ask('GET', '/readiness')).body.findings.find(
        (f: any) => f.code === 'not-sent' && wordsOf(f.sentence).includes('Strobe')
      )
    ).toMatchObject({ fix: { does: 'send' } })
    await send('cam-slipway')
    expect(await waiting()).toEqual([])
  })

  test('the alarm has it all: outputs confirmed by the camera, the rest by the server', async () => {
    // The script of the scene: somebody comes up from the water within the first half minute.
    const alarm = await alarmOf('quay-edge')
    const done = await eventually(async () => {
      const a = (await t.ask('GET', `/alarms/${alarm.id}`)).body as AlarmView
      return a.deliveries.every((d) => d.state !== 'pending') && a
    })
    expect(byKind(done)).toMatchObject({
      strobe: { by: 'camera', state: 'sent', recipient: 'Slipway camera' },
      speaker: { by: 'camera', state: 'sent' },
      relay: { by: 'server', state: 'sent', recipient: 'Recorder' },
      recording: { by: 'server', state: 'sent' }
    })
    const camera = made.get('cam-slipway')!
    expect(camera.outputs.act('strobe')!.settings).toEqual({ Time: 'PT20S', Pattern: 'fast' })
    expect(camera.outputs.act('speaker')!.voice!.length).toBeGreaterThan(8000)
    expect(made.get('recorder')!.outputs.isActive('relay-1', Date.now() + 3_600_000)).toBe(true)
    // The slipway is on no channel of the recorder: its own camera records, from before the trigger.
    expect(camera.recordings.all()).toHaveLength(1)
    const { from, to } = camera.recordings.all()[0]!
    expect(to - from).toBeCloseTo(20, 0)
    const [trigger] = await t.database.rows<{
      fired_at: number
      direction: string
      source: string
    }>('SELECT fired_at, direction, source FROM fired_trigger WHERE alarm_id = ?', [alarm.id])
    expect(trigger).toMatchObject({ direction: 'leftToRight', source: 'device' })
    expect(Date.now() - trigger!.fired_at).toBeLessThan(60_000)
  })

  let recordedAlarm: AlarmView
  test('reads a finished recording from the camera and keeps it', async () => {
    recordedAlarm = await alarmOf('quay-edge')
    const { id } = byKind(recordedAlarm).recording!
    const kept = async (): Promise<EvidenceView> =>
      (await t.ask('GET', `/deliveries/${id}/files`)).body
    const [first] = await Promise.all([kept(), kept()])
    if (first.recording?.state === 'running')
      expect(first.recording.secondsLeft).toBeLessThanOrEqual(15)
    await eventually(async () => (await kept()).files.length > 0)
    expect(await kept()).toEqual({
      files: [{ name: 'recording.mp4', type: 'video/mp4' }],
      recording: null
    })
    const file = join(t.folder, 'evidence', String(id), 'recording.mp4')
    const { width, height, duration } = JSON.parse(
      spawnSync('ffprobe', [
        '-v',
        'error',
        '-select_streams',
        'v',
        '-show_entries',
        'stream=width,height:format=duration',
        '-of',
        'json',
        file
      ]).stdout.toString(),
      (_, value) => (value?.streams ? { ...value.streams[0], ...value.format } : value)
    )
    expect([width, height]).toEqual([640, 360])
    // A busy machine takes a picture more or less at either end.
    expect(Math.abs(Number(duration) - 20)).toBeLessThan(2)
    expect((await t.ask('GET', `/deliveries/${id}/files/recording.mp4`)).status).toBe(200)
  })

  test('a stretch of then that is saved as a clip shows what the camera has recorded of it', async () => {
    const { id } = byKind(recordedAlarm).recording!
    const [trigger] = await t.database.rows<{ fired_at: number }>(
      'SELECT t.fired_at FROM fired_trigger t JOIN delivery d ON d.trigger_id = t.id WHERE d.id = ?',
      [id]
    )
    const recorded = join(t.folder, 'evidence', String(id), 'recording.mp4')
    // As if nobody had looked at it: it is read from the device again.
    await t.database.run(
      "UPDATE delivery SET result = JSON_REMOVE(result, '$.files') WHERE id = ?",
      [id]
    )
    rmSync(recorded)
    // From 5 s before the trigger to 15 s after it is recorded.
    const at = trigger!.fired_at
    const stretch = { from: at - 10_000, to: at + 14_000 }
    const { body } = await t.ask('POST', '/cameras/slipway/look-back/clips', {
      name: 'Quay edge',
      ...stretch
    })
    const clip: ClipView = await eventually(async () => {
      const now = (await t.ask('GET', `/clips/${body.id}`)).body
      return now.state === 'ready' && now
    })
    const view = join(t.folder, 'clips', clip.id, 'view.mp4')
    // As large as it records; small pictures are 480 wide.
    expect(clip).toMatchObject({ width: 640, height: 360, frames: 240 })
    // ffmpeg says how alike two pictures are, of one moment in both films.
    const { stderr } = spawnSync(
      'ffmpeg',
      [
        ...['-ss', '15', '-i', view, '-ss', '10', '-i', recorded, '-frames:v', '1'],
        ...['-lavfi', '[0][1]ssim', '-f', 'null', '-']
      ],
      { encoding: 'utf8' }
    )
    expect(Number(/All:([\d.]+)/.exec(stderr)![1])).toBeGreaterThan(0.9)
  })

  test('opens the relay on acknowledging', async () => {
    const { id } = await alarmOf('quay-edge')
    expect((await t.ask('POST', `/alarms/${id}/acknowledge`, {})).status).toBe(200)
    await eventually(async () => !made.get('recorder')!.outputs.isActive('relay-1', Date.now()))
    // It opens, and then that is written down.
    await eventually(async () => {
      const { relay } = byKind((await t.ask('GET', `/alarms/${id}`)).body)
      return relay!.does === 'off' && relay!.state === 'sent'
    })
  })
})

describe('a contact', () => {
  test('triggers only while the panel is set', async () => {
    await edit('waiting-room', { id: 'waiting-room-door', schedule: undefined })
    await link('waiting-room', 'waiting-room-door', ['station'])
    const hold = async (name: 'panel' | 'door', set: boolean): Promise<void> => {
      devices.contacts.hold(name, set)
      await eventually(async () => (await view()).inputs[name] === set)
    }
    await hold('door', true)
    await hold('panel', false)
    await hold('door', false)
    await hold('door', true)
    expect(
      (await t.ask('GET', '/alarms')).body.alarms.some(
        (a: AlarmView) => a.detection === 'waiting-room-door'
      )
    ).toBe(false)
    await hold('panel', true)
    await hold('door', false)
    const alarm = await alarmOf('waiting-room-door')
    expect(alarm.triggers).toBe(1)
    await eventually(async () =>
      t.station.messages.some(
        (m) => m.code === 'UA' && m.words === 'Waiting room: Door after hours: contact active'
      )
    )
  })
})

describe('a camera goes silent', () => {
  test('raises an alarm and keeps pictures of its neighbour', async () => {
    await edit('slipway', { id: 'lost', name: 'Slipway lost', kind: 'signalLoss', delaySeconds: 1 })
    await change('path-snapshots', { before: 1, after: 1 })
    await link('slipway', 'lost', ['path-snapshots'])
    // What it has recorded and nobody has looked at is out of reach from now on, and that is said.
    const { id } = byKind(await alarmOf('quay-edge')).recording!
    await t.database.run(
      "UPDATE delivery SET result = JSON_REMOVE(result, '$.files') WHERE id = ?",
      [id]
    )
    await made.get('cam-slipway')!.close()
    expect((await t.ask('GET', `/deliveries/${id}/files`)).body).toEqual({
      files: [],
      recording: { state: 'failed', why: expect.saying('can’t be reached') }
    })
    const alarm = await alarmOf('lost')
    const done = await eventually(async () => {
      const a = (await t.ask('GET', `/alarms/${alarm.id}`)).body as AlarmView
      return a.deliveries.every((d) => d.state === 'sent') && a
    })
    expect(done.deliveries).toMatchObject([{ kind: 'snapshots', recipient: 'Quay path' }])
    const {
      body: { files }
    } = await t.ask('GET', `/deliveries/${done.deliveries[0]!.id}/files`)
    expect(files.map((f: any) => f.name)).toEqual([
      'snapshot-before-1.0s.jpg',
      'snapshot.jpg',
      'snapshot-after-1.0s.jpg'
    ])
    expect(
      existsSync(join(t.folder, 'evidence', String(done.deliveries[0]!.id), 'snapshot.jpg'))
    ).toBe(true)
    // Once, for as long as it stays silent.
    await new Promise((resolve) => setTimeout(resolve, 2500))
    expect((await t.ask('GET', `/alarms/${alarm.id}`)).body.triggers).toBe(1)
  })
})
