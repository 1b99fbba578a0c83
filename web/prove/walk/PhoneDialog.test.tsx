/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { Check } from '../../../core/formats/check.ts'
import type { PhoneLinksView, PhoneLinkView } from '../../../core/proving/phone.ts'
import { answerWith, type Asked } from '../../testing/answers.ts'
import { inApp } from '../../testing/inApp.tsx'
import { PhoneDialog } from './PhoneDialog.tsx'

const check = { id: 'walk', name: 'From the gate to the quay' } as Check
const ENDS = Date.parse('2026-11-24T13:00:00Z')

const link = (id: number, more: Partial<PhoneLinkView> = {}): PhoneLinkView => ({
  id,
  name: check.name,
  by: 'Isla',
  createdAt: ENDS - 3_600_000,
  expiresAt: ENDS,
  opened: null,
  ...more
})
const OPENED = {
  at: ENDS - 60_000,
  address: '192.0.2.44',
  agent: 'Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Chrome/126.0 Mobile Safari/537.36'
}

/** The links of the camera on the server. */
let view: PhoneLinksView
let asked: Asked[]
let made: number
let refusal: { status: number; body: unknown } | null

beforeEach(() => {
  view = { links: [], origins: ['https://192.0.2.5:4600'] }
  made = 10
  refusal = null
  asked = answerWith(({ method, path }) => {
    if (method === 'GET') return { body: view }
    if (method === 'POST') {
      if (refusal) return refusal
      view.links.push(link(++made))
      return { status: 201, body: { id: made, token: `token-${made}`, expiresAt: ENDS } }
    }
    view.links = view.links.filter(({ id }) => !path.endsWith(`/${id}`))
    return { body: {} }
  })
})
afterEach(cleanup)

const show = () =>
  render(inApp(<PhoneDialog camera="slipway" check={check} onClose={() => {}} />, '/prove'))
const deleted = () => asked.filter(({ method }) => method === 'DELETE').map(({ path }) => path)

test('the code leads to where phones reach the server, and says until when it is good', async () => {
  show()
  expect(await screen.findByText('https://192.0.2.5:4600/phone#token-11')).toBeTruthy()
  expect(screen.getByText(/until .*13:00/)).toBeTruthy()
  expect(asked.find(({ method }) => method === 'POST')!.body).toEqual({ check })
  // Its own code is not listed among those that have access: nobody has used it.
  expect(screen.queryByRole('region', { name: 'Phones with access' })).toBeNull()
})

test('a server that listens on its own machine only says that no phone can reach it', async () => {
  view.origins = []
  show()
  expect(await screen.findByText(/Phones can’t reach this address/)).toBeTruthy()
})

test('of several addresses one is chosen', async () => {
  view.origins = ['https://192.0.2.5:4600', 'https://cameras.example']
  show()
  await userEvent.click(await screen.findByRole('combobox'))
  await userEvent.click(await screen.findByTitle('https://cameras.example'))
  expect(screen.getByText('https://cameras.example/phone#token-11')).toBeTruthy()
})

test('once it was opened the code is gone; it is said by whom, and a new one can be made', async () => {
  show()
  await screen.findByText(/token-11$/)
  view.links = [link(11, { opened: OPENED })]
  const opened = await screen.findByRole('status')
  expect(opened.textContent).toContain('The phone has opened the walk test')
  expect(opened.textContent).toContain('192.0.2.44')
  expect(screen.queryByText(/token-11$/)).toBeNull()
  await userEvent.click(screen.getByRole('button', { name: 'New code' }))
  expect(await screen.findByText(/token-12$/)).toBeTruthy()
  // The one that is in use stays.
  expect(deleted()).toEqual([])
  const access = within(screen.getByRole('region', { name: 'Phones with access' }))
  await userEvent.click(access.getByRole('button', { name: 'Revoke' }))
  await waitFor(() => expect(deleted()).toHaveLength(1))
  expect(deleted()[0]).toMatch(/\/links\/11$/)
})

test('a code that ends while it is shown says so', async () => {
  show()
  await screen.findByText(/token-11$/)
  // It has been seen in the list before it goes.
  await waitFor(() =>
    expect(asked.filter(({ method }) => method === 'GET').length).toBeGreaterThan(1)
  )
  view.links = []
  expect((await screen.findByRole('status')).textContent).toBe('This code has ended.')
})

test('closing revokes a code that nobody has used, and leaves one that somebody has', async () => {
  const first = show()
  await screen.findByText(/token-11$/)
  first.unmount()
  await waitFor(() => expect(deleted()).toHaveLength(1))
  expect(deleted()[0]).toMatch(/\/links\/11$/)
  const second = show()
  await screen.findByText(/token-12$/)
  view.links = [link(12, { opened: OPENED })]
  await screen.findByRole('status')
  const before = asked.length
  second.unmount()
  await waitFor(() => expect(asked.length).toBeGreaterThan(before))
  expect(deleted()).toHaveLength(1)
})

test('why no code can be made is said in its place', async () => {
  refusal = { status: 409, body: { code: 'conflict', said: 'Another walk test is running.' } }
  show()
  expect(await screen.findByText('Another walk test is running.')).toBeTruthy()
  expect(screen.queryByText('Making the code…')).toBeNull()
})
