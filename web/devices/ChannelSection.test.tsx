/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ChannelDetection, ChannelView, DeviceView } from '../../core/devices/views.ts'
import { said } from '../../core/messages/said.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { chooseFrom } from '../testing/choose.ts'
import { inApp } from '../testing/inApp.tsx'
import { ChannelSection } from './ChannelSection.tsx'

const ability = { type: 'tt:LineDetector', most: 4, parameters: ['ClassFilter'], ranges: {} }
const channel = (more: Partial<ChannelView> = {}): ChannelView => ({
  token: 'ch1',
  name: 'Channel 1',
  camera: 'yard',
  used: true,
  abilities: [ability],
  mostRules: null,
  modes: [],
  detections: [],
  unmanaged: [],
  switchesBack: [],
  surroundings: null,
  ...more
})
const detection = (id: string, more: Partial<ChannelDetection> = {}): ChannelDetection => ({
  id,
  name: `Line ${id}`,
  kind: 'line',
  state: 'same',
  parked: false,
  differences: [],
  losses: [],
  elsewhere: null,
  ...more
})

let asked: Asked[]
let acted: string[]
beforeEach(() => {
  acted = []
  asked = answerWith(({ path }) => ({
    body:
      path === '/site'
        ? {
            name: 'Site',
            timeZone: 'UTC',
            cameras: [
              { id: 'yard', name: 'Yard' },
              { id: 'lane', name: 'Lane' }
            ]
          }
        : {}
  }))
})
afterEach(cleanup)

const show = (of: ChannelView, { named = true, working = null as string | null } = {}): void => {
  render(
    inApp(
      <ChannelSection
        device={{ id: 'dev' } as DeviceView}
        channel={of}
        named={named}
        act={async (what, work) => {
          acted.push(what)
          await work()
        }}
        working={working}
      />
    )
  )
}
const row = (name: string) => within(screen.getByText(name).closest('li')!)
const changes = () => asked.filter(({ method }) => method !== 'GET')

test('the only picture of a device needs no name, and no choice of a route', () => {
  show(channel(), { named: false })
  expect(screen.getByRole('region', { name: 'Picture' })).toBeTruthy()
  expect(screen.queryByRole('heading')).toBeNull()
  expect(screen.queryByRole('switch')).toBeNull()
  expect(screen.getByText('Line crossing (up to 4)')).toBeTruthy()
})

test('one that shows no camera yet asks for it; none can be sent through it', () => {
  show(channel({ camera: null, mostRules: 8 }))
  expect(screen.getByText('Select the camera.')).toBeTruthy()
  expect(screen.queryByRole('switch')).toBeNull()
  expect(screen.getByText('8 detections in total')).toBeTruthy()
})

test('without any analysis it says so, and lists nothing', () => {
  show(channel({ abilities: [] }))
  expect(screen.getByText('do not run here')).toBeTruthy()
  expect(screen.queryByText('No detections drawn, and none on the device.')).toBeNull()
  expect(screen.queryByRole('list')).toBeNull()
})

test('is given its camera, and the plan is sent through it or not', async () => {
  show(channel())
  await userEvent.click(screen.getByRole('switch', { name: /Send the plan/ }))
  await waitFor(() => expect(changes()).toHaveLength(1))
  expect([acted, changes()[0]]).toEqual([
    ['used ch1'],
    { method: 'PUT', path: '/devices/dev/channels/ch1', body: { used: false } }
  ])
  await chooseFrom('Camera of Channel 1', 'None')
  await waitFor(() => expect(changes()).toHaveLength(2))
  expect(changes()[1]!.body).toEqual({ camera: null })
})

test('what differs is told setting by setting; only what the device has is imported from it', async () => {
  const difference = (device: 'removed' | 'other') => ({
    setting: said('settings.direction'),
    plan: said('edits.text', 'left to right'),
    device: device === 'removed' ? said('values.removedOnDevice') : said('edits.text', 'both ways')
  })
  show(
    channel({
      detections: [
        detection('a'),
        detection('b', { state: 'drifted', differences: [difference('other')] }),
        detection('c', { state: 'drifted', differences: [difference('removed')] })
      ]
    })
  )
  expect(row('Line b').getByText(/plan left to right, device both ways/)).toBeTruthy()
  for (const name of ['Line a', 'Line c']) expect(row(name).queryByRole('button')).toBeNull()
  await userEvent.click(row('Line b').getByRole('button', { name: 'Import from device' }))
  await waitFor(() =>
    expect(changes()).toEqual([
      { method: 'POST', path: '/devices/dev/take-over', body: { channel: 'ch1', rule: 'b' } }
    ])
  )
})

test('what the plan knows nothing of is imported where it is of a known kind and a camera', async () => {
  const unmanaged: ChannelView['unmanaged'] = [
    { name: 'Own line', kind: 'line' },
    { name: 'Own queue', kind: null }
  ]
  show(channel({ unmanaged }))
  expect(row('Own line').getByText(/Line crossing, on the device, not in the plan/)).toBeTruthy()
  expect(row('Own queue').queryByRole('button')).toBeNull()
  await userEvent.click(row('Own line').getByRole('button', { name: 'Import from device' }))
  await waitFor(() => expect(changes()[0]!.body).toEqual({ channel: 'ch1', rule: 'Own line' }))
  cleanup()
  show(channel({ unmanaged, camera: null }))
  expect(row('Own line').queryByRole('button')).toBeNull()
})

test('what analysis runs, and what would not; another one is switched to', async () => {
  show(
    channel({
      modes: [
        { type: 'tt:Behaviour', runs: ['tt:LineDetector', 'tt:FieldDetector'], running: true },
        { type: 'tt:Faces', runs: ['tt:FaceDetector'], running: false }
      ]
    })
  )
  expect(screen.getByText(/^runs Line crossing, Intrusion; .+ would not run$/)).toBeTruthy()
  await userEvent.click(screen.getByText('Faces'))
  await waitFor(() =>
    expect(changes()).toEqual([
      { method: 'PUT', path: '/devices/dev/channels/ch1/mode', body: { type: 'tt:Faces' } }
    ])
  )
})

test.each([
  [{ held: 'outdoors', wanted: 'outdoors' }, 'outdoors, as in the plan'],
  [{ held: 'indoors', wanted: 'outdoors' }, 'plan outdoors, device indoors'],
  [{ held: null, wanted: null }, 'none; the device has no switch for the camera’s']
] as const)('surroundings %j', (surroundings, words) => {
  show(channel({ surroundings: surroundings }))
  expect(screen.getByText(words)).toBeTruthy()
})

test('what the device switches on again by itself is named, however many', () => {
  show(channel({ switchesBack: ['tt:LineDetector', 'tt:FieldDetector', 'tt:TamperDetector'] }))
  expect(screen.getByText(/switched Line crossing, Intrusion and Tamper back on/)).toBeTruthy()
})
