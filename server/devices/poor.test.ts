import { afterAll, afterEach, describe, expect, test } from '@jest/globals'
import { TestDevices, asAdded } from '../../simulators/testing/testDevices.ts'
import { picturesOnly, soap, time, users } from '../testing/poorAnswers.ts'
import { PoorDevice, type Answers } from '../testing/poorDevice.ts'
import { RtspCamera } from '../testing/rtspCamera.ts'
import { eventually, startTestApp, type TestApp } from '../testing/testApp.ts'

const simulated = new TestDevices()
afterAll(() => simulated.close())
let t: TestApp | undefined
let device: PoorDevice | undefined
let stream: RtspCamera | undefined
afterEach(async () => {
  await t?.close()
  await device?.close()
  await stream?.stop()
  t = device = stream = undefined
})

const added = async (answers: Answers, fault?: string) => {
  device = await new PoorDevice(answers, { ...(fault && { fault }) }).start()
  t = await startTestApp({ withDemo: false })
  const answer = await t.ask('POST', '/devices', {
    name: 'Yard camera',
    address: device.address,
    makeCameras: true,
    username: 'admin',
    password: 'x'
  })
  expect(answer.status).toBe(201)
  return answer.body
}
const cameras = async () =>
  (await t!.ask('GET', '/site')).body.cameras as { id: string; name: string }[]

describe('a device with pictures alone', () => {
  test.each(['ter:ActionNotSupported', 'vendor:Unheard'])(
    'refusing the rest with %s becomes a camera, with its picture over RTSP',
    async (fault) => {
      stream = await RtspCamera.start('h264')
      const body = await added(picturesOnly(`rtsp://10.0.0.9:${stream.port}/live`), fault)
      expect(body).toMatchObject({ state: 'online', trouble: null })
      expect(body.channels).toMatchObject([{ token: '0', abilities: [] }])
      const [camera] = (await cameras()).filter(({ name }) => name === 'Yard camera')
      expect(body.channels[0].camera).toBe(camera!.id)
      const picture = await t!.fetch(`/cameras/${camera!.id}/live.jpg`)
      expect(picture.status).toBe(200)
      const bytes = Buffer.from(await picture.arrayBuffer())
      expect(bytes.subarray(0, 2)).toEqual(Buffer.from([0xff, 0xd8]))
      // Nothing was sent to it: it has no analysis.
      expect(device!.asked).not.toContain('CreateRules')
    }
  )

  test('two who look share one process, which ends some time after both have left', async () => {
    stream = await RtspCamera.start('jpeg')
    await added(picturesOnly(`rtsp://10.0.0.9:${stream.port}/live`))
    const camera = (await cameras()).find(({ name }) => name === 'Yard camera')!
    const { pictures } = t!.app.devices
    const found = (await t!.app.devices.channelShowing(camera.id))!
    const [a, b] = [new AbortController(), new AbortController()]
    const [one, two] = [pictures.frames(found, a.signal), pictures.frames(found, b.signal)]
    await Promise.all([one.next(), two.next()])
    expect(pictures.running).toBe(1)
    await Promise.all([one.return(undefined), two.return(undefined)])
    expect(pictures.running).toBe(1)
    await eventually(() => Promise.resolve(pictures.running === 0))
  })

  test('a stream that was cut comes back', async () => {
    stream = await RtspCamera.start('jpeg')
    const { port } = stream
    await added(picturesOnly(`rtsp://10.0.0.9:${port}/live`))
    const camera = (await cameras()).find(({ name }) => name === 'Yard camera')!
    const { pictures } = t!.app.devices
    const found = (await t!.app.devices.channelShowing(camera.id))!
    const ended = new AbortController()
    const before = pictures.frames(found, ended.signal)
    await before.next()
    await stream.stop()
    await expect(
      (async () => {
        for await (const _ of before) void _
      })()
    ).rejects.toThrow()
    stream = await RtspCamera.start('jpeg', undefined, port)
    const after = await eventually(async () => {
      const next = await pictures
        .frames(found, ended.signal)
        .next()
        .catch(() => null)
      return next?.value
    })
    expect(after).toBeInstanceOf(Buffer)
    ended.abort()
  })
})

test('a device with Media 2 alone, and several pictures, becomes cameras by their names', async () => {
  const of = (token: string, source: string, name: string): string =>
    `<ns3:Profiles token="${token}"><ns3:Name>${token}</ns3:Name><ns3:Configurations><ns3:VideoSource token="c${source}"><ns4:Name>${name}</ns4:Name><ns4:SourceToken>${source}</ns4:SourceToken></ns3:VideoSource><ns3:VideoEncoder token="e"><ns4:Encoding>H265</ns4:Encoding><ns4:Resolution><ns4:Width>1280</ns4:Width><ns4:Height>720</ns4:Height></ns4:Resolution></ns3:VideoEncoder></ns3:Configurations></ns3:Profiles>`
  const body = await added({
    GetSystemDateAndTime: time,
    GetUsers: users,
    GetServices: soap(
      '<ns1:GetServicesResponse><ns1:Service><ns1:Namespace>http://www.onvif.org/ver20/media/wsdl</ns1:Namespace><ns1:XAddr>http://x/onvif/media2</ns1:XAddr></ns1:Service></ns1:GetServicesResponse>'
    ),
    GetProfiles: soap(
      `<ns3:GetProfilesResponse>${of('p1', 's1', 'Loading bay')}${of('p2', 's2', 'Camera 2')}${of('Profile_3', 's3', '')}</ns3:GetProfilesResponse>`
    )
  })
  expect(body.state).toBe('online')
  expect(body.channels.map(({ token }: { token: string }) => token)).toEqual(['s1', 's2', 's3'])
  const names = (await cameras()).map(({ name }) => name)
  expect(names).toEqual(expect.arrayContaining(['Loading bay', 'Yard camera 2', 'Yard camera 3']))
})

describe('simulated cameras over RTSP', () => {
  test('one without analysis, events and snapshots becomes a camera with a picture', async () => {
    const gate = await simulated.start('cam-gate')
    t = await startTestApp({ withDemo: false })
    const { status, body } = await t.ask('POST', '/devices', {
      ...asAdded(gate),
      camera: null,
      makeCameras: true
    })
    expect(status).toBe(201)
    expect(body).toMatchObject({ state: 'online', channels: [{ abilities: [], modes: [] }] })
    const camera = (await cameras()).find(({ name }) => name === 'Boatyard gate')!
    const picture = await t.fetch(`/cameras/${camera.id}/live.jpg`)
    expect(picture.headers.get('content-type')).toBe('image/jpeg')
    const { body: tried } = await t.ask('GET', `/devices/${body.id}/abilities`)
    const states = Object.fromEntries(
      tried.abilities.map((a: any) => [a.ability, a.state]) as [string, string][]
    )
    expect(states).toMatchObject({
      picture: 'works',
      targets: 'not-offered',
      nightPicture: 'not-offered',
      storage: 'not-offered',
      outputs: 'not-offered',
      clock: 'works',
      network: 'works'
    })
  })

  test('Media 2 gives pictures and targets', async () => {
    const camera = await simulated.start('cam-waiting')
    t = await startTestApp({ withDemo: false })
    const { body } = await t.ask('POST', '/devices', {
      ...asAdded(camera),
      camera: null,
      makeCameras: true
    })
    const { body: tried } = await t.ask('GET', `/devices/${body.id}/abilities`)
    for (const ability of ['picture', 'targets', 'events'])
      expect(tried.abilities).toContainEqual(expect.objectContaining({ ability, state: 'works' }))
  })
})
