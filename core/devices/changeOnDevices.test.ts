import { expect, test } from '@jest/globals'
import { changeOnDevices } from './changeOnDevices.ts'
import { line } from './testing/line.ts'
import type { ChannelView, DeviceView } from './views.ts'

const device = (
  name: string,
  parameters: string[],
  more: Partial<ChannelView> = {}
): Pick<DeviceView, 'name' | 'channels'> => ({
  name,
  channels: [
    {
      token: 'analytics',
      name: 'Picture',
      camera: 'gate',
      used: true,
      abilities: [
        {
          type: 'tt:LineDetector',
          most: null,
          parameters,
          ranges: { Sensitivity: { min: 40, max: 100 } }
        }
      ],
      mostRules: null,
      modes: [],
      detections: [],
      unmanaged: [],
      switchesBack: [],
      surroundings: null,
      ...more
    }
  ]
})
const all = ['Direction', 'Sensitivity', 'ClassFilter', 'ConfirmTime']
const few = ['Direction', 'Sensitivity', 'ClassFilter']
const asked = (before: object, after: object, devices: ReturnType<typeof device>[]) =>
  changeOnDevices(line(before), line(after), 'gate', devices, [])

test('says what a device lets go, or takes as its nearest, and nothing that it lost before', () => {
  const [able, poor] = asked({ confirmSeconds: 0 }, { confirmSeconds: 2, sensitivity: 30 }, [
    device('Camera', all),
    device('Recorder', few)
  ])
  expect(able).toEqual({
    device: 'Camera',
    losses: [{ setting: 'sensitivity', wanted: expect.saying('30'), nearest: expect.saying('40') }]
  })
  expect(poor!.losses.map(({ setting }) => setting).sort()).toEqual(['confirm', 'sensitivity'])
  expect(
    asked({ confirmSeconds: 2 }, { confirmSeconds: 2, sensitivity: 60 }, [device('R', few)])
  ).toEqual([{ device: 'R', losses: [] }])
})

test('another value of what it lost before is told again', () => {
  expect(
    asked({ confirmSeconds: 2 }, { confirmSeconds: 3 }, [device('R', few)])[0]!.losses
  ).toMatchObject([{ setting: 'confirm', nearest: null }])
})

test('routes that are not used, of other cameras, or without such a rule say nothing', () => {
  expect(
    asked({}, { sensitivity: 30 }, [
      device('Unused', all, { used: false }),
      device('Elsewhere', all, { camera: 'yard' }),
      device('Without', all, { abilities: [] })
    ])
  ).toEqual([])
})
