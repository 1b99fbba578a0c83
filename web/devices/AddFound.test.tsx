/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { DeviceState, DeviceView, FoundDevice } from '../../core/devices/views.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { AddFound } from './AddFound.tsx'

const found = (n: number, more: Partial<FoundDevice> = {}): FoundDevice => ({
  address: `http://192.0.2.${n}`,
  name: `Camera ${n}`,
  hardware: 'C',
  known: false,
  simulated: false,
  ...more
})

/** What is on the network, and how each device stands once it has been added with no account, and with one. */
let network: FoundDevice[]
let stands: Record<string, { bare: DeviceState; after: DeviceState }>
let added: (DeviceView | null)[]
let asked: Asked[]

const view = (id: string, state: DeviceState): DeviceView =>
  ({
    id,
    name: id,
    state,
    channels: [{ camera: 'one' }, { camera: null }]
  }) as unknown as DeviceView

function server({ method, path, body }: Asked): { status?: number; body: unknown } {
  if (path === '/devices/find') return { body: network }
  if (method === 'POST' && path === '/devices') {
    const state = stands[body.address]
    if (!state) return { status: 503, body: { code: 'unavailable', said: 'The database is away.' } }
    return { status: 201, body: view(body.address, body.username ? state.after : state.bare) }
  }
  const [, address] = /^\/devices\/(.*)\/account$/.exec(path) ?? []
  return { body: view(address!, stands[address!]!.after) }
}

beforeEach(() => {
  network = [found(1), found(2), found(3, { known: true })]
  stands = {}
  for (const { address } of network) stands[address] = { bare: 'online', after: 'online' }
  added = []
  asked = answerWith(server)
})
afterEach(cleanup)

const show = async (): Promise<void> => {
  render(
    inApp(
      <AddFound
        onByAddress={() => {}}
        onAdded={(device) => added.push(device)}
        onClose={() => {}}
      />
    )
  )
  await waitFor(() => expect(screen.queryByText(/Searching/)).toBeNull())
}
const item = (name: RegExp) => within(screen.getByRole('checkbox', { name }).closest('li')!)
const made = () => asked.filter(({ path }) => path !== '/devices/find')

test('lists those that are not added yet first; those that are cannot be ticked', async () => {
  network.reverse()
  await show()
  const boxes = within(screen.getByRole('list')).getAllByRole('checkbox')
  expect(boxes.map((box) => [box.closest('li')!.textContent, (box as any).disabled])).toEqual([
    ['Camera 2 192.0.2.2 ', false],
    ['Camera 1 192.0.2.1 ', false],
    ['Camera 3 192.0.2.3 added', true]
  ])
  expect(screen.getByRole('button', { name: 'Add devices' })).toHaveProperty('disabled', true)
})

test('“Select all” takes what can be added; one that is added alone is opened', async () => {
  await show()
  const all = screen.getByRole('checkbox', { name: 'Select all' })
  await userEvent.click(all)
  expect(screen.getByRole('button', { name: 'Add 2 devices' })).toBeTruthy()
  await userEvent.click(screen.getByRole('checkbox', { name: /Camera 2/ }))
  await userEvent.type(screen.getByLabelText('User name'), 'admin')
  await userEvent.type(screen.getByLabelText('Password'), 'by-the-quay')
  await userEvent.click(screen.getByRole('button', { name: 'Add 1 device' }))
  await waitFor(() => expect(added).toHaveLength(1))
  expect(added[0]!.id).toBe('http://192.0.2.1')
  expect(made()).toEqual([
    {
      method: 'POST',
      path: '/devices',
      body: {
        name: 'Camera 1',
        address: 'http://192.0.2.1',
        makeCameras: true,
        username: 'admin',
        password: 'by-the-quay'
      }
    }
  ])
})

test('what was added stays; what failed says why, and only that is tried again', async () => {
  stands['http://192.0.2.2'] = { bare: 'no-account', after: 'wrong-password' }
  await show()
  await userEvent.click(screen.getByRole('checkbox', { name: 'Select all' }))
  await userEvent.type(screen.getByLabelText('User name'), 'admin')
  await userEvent.type(screen.getByLabelText('Password'), 'wrong')
  await userEvent.click(screen.getByRole('button', { name: 'Add 2 devices' }))
  await item(/Camera 2/).findByText('added, but wrong password')
  expect(item(/Camera 1/).getByText('added, 1 camera')).toBeTruthy()
  expect(screen.getByRole('checkbox', { name: /Camera 1/ })).toHaveProperty('disabled', true)
  expect(added).toEqual([])
  // It is among the devices already: it is given the other account, not added twice.
  stands['http://192.0.2.2'].after = 'online'
  asked.length = 0
  await userEvent.type(screen.getByLabelText('Password'), '!')
  await userEvent.click(await screen.findByRole('button', { name: 'Retry 1 device' }))
  await waitFor(() => expect(added).toHaveLength(1))
  expect(made()).toEqual([
    {
      method: 'POST',
      path: '/devices/http://192.0.2.2/account',
      body: { username: 'admin', password: 'wrong!', first: false }
    }
  ])
})

test('one fresh from the box says that it needs an account, and gets it as its first', async () => {
  stands['http://192.0.2.1'] = { bare: 'new', after: 'new' }
  await show()
  await userEvent.click(screen.getByRole('checkbox', { name: /Camera 1/ }))
  await userEvent.click(screen.getByRole('button', { name: 'Add 1 device' }))
  await item(/Camera 1/).findByText('added, but it has no account yet: enter one')
  await userEvent.type(screen.getByLabelText('User name'), 'admin')
  await userEvent.type(screen.getByLabelText('Password'), 'by-the-quay')
  stands['http://192.0.2.1'].after = 'online'
  await userEvent.click(await screen.findByRole('button', { name: 'Retry 1 device' }))
  await waitFor(() => expect(added).toHaveLength(1))
  expect(made().at(-1)).toMatchObject({ body: { first: true } })
})

test('what the server cannot add is not among the devices, and is added anew', async () => {
  delete stands['http://192.0.2.1']
  await show()
  await userEvent.click(screen.getByRole('checkbox', { name: /Camera 1/ }))
  await userEvent.click(screen.getByRole('button', { name: 'Add 1 device' }))
  await item(/Camera 1/).findByText('The database is away.')
  stands['http://192.0.2.1'] = { bare: 'online', after: 'online' }
  await userEvent.click(await screen.findByRole('button', { name: 'Retry 1 device' }))
  await waitFor(() => expect(added).toHaveLength(1))
  expect(made().map(({ path }) => path)).toEqual(['/devices', '/devices'])
})

test('an empty network says so, and can be searched again', async () => {
  network = []
  await show()
  expect(screen.getByText('No devices found. Enter an address.')).toBeTruthy()
  expect(screen.queryByLabelText('User name')).toBeNull()
  network = [found(7)]
  await userEvent.click(screen.getByRole('button', { name: 'Search again' }))
  expect(await screen.findByRole('checkbox', { name: /Camera 7/ })).toBeTruthy()
})
