/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, describe, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { AccountView, SessionView } from '../../core/accounts/accounts.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import type { SiteSummary } from '../../core/sites/views.ts'
import { choose } from '../testing/choose.ts'
import { inApp } from '../testing/inApp.tsx'
import { AccountList } from './AccountList.tsx'
import { SessionList } from './SessionList.tsx'
import { SignIn } from './SignIn.tsx'
import { useSession } from './useSession.ts'

afterEach(cleanup)

const anna: AccountView = {
  id: 1,
  username: 'anna',
  name: 'Anna',
  role: 'installer',
  sites: []
}
const bert: AccountView = { id: 2, username: 'bert', name: 'Bert', role: 'viewer', sites: [] }

describe('signing in', () => {
  const Who = () => <output>{useSession().data?.name ?? 'nobody'}</output>
  const show = (answer: (asked: Asked) => { status?: number; body: unknown }): Asked[] => {
    const asked = answerWith((one) => {
      if (one.path === '/api/entrance') return { body: { first: false } }
      if (one.method === 'GET') return { status: 401, body: { code: 'signed-out', said: 'No' } }
      return answer(one)
    })
    render(
      inApp(
        <>
          <SignIn />
          <Who />
        </>
      )
    )
    return asked
  }

  test('asks for both, sends them as typed, and signs in', async () => {
    const asked = show(() => ({ body: anna }))
    const button = await screen.findByRole('button', { name: 'Sign in' })
    expect(button).toHaveProperty('disabled', true)
    await userEvent.type(screen.getByLabelText('User name'), 'anna')
    expect(button).toHaveProperty('disabled', true)
    await userEvent.type(screen.getByLabelText('Password'), ' a b  c {{ ')
    await userEvent.click(button)
    await waitFor(() => expect(screen.getByRole('status').textContent).toBe('Anna'))
    expect(asked.at(-1)).toEqual({
      method: 'POST',
      path: '/api/session',
      body: { username: 'anna', password: ' a b  c { ' }
    })
  })

  test('when refused, says why, keeps what was typed, and retries on Enter', async () => {
    let tries = 0
    show(() =>
      ++tries === 1
        ? { status: 401, body: { code: 'unauthorised', said: 'Not these two together.' } }
        : { body: anna }
    )
    await userEvent.type(await screen.findByLabelText('User name'), 'anna')
    await userEvent.type(screen.getByLabelText('Password'), 'wrong one here{Enter}')
    expect((await screen.findByRole('alert')).textContent).toContain('Not these two together.')
    expect(screen.getByLabelText('Password')).toHaveProperty('value', 'wrong one here')
    await userEvent.type(screen.getByLabelText('Password'), '{Enter}')
    await waitFor(() => expect(screen.getByRole('status').textContent).toBe('Anna'))
  })

  test('creates the first account on a new installation', async () => {
    answerWith(() => ({ body: { first: true } }))
    render(inApp(<SignIn />))
    expect(await screen.findByLabelText(/code/i)).toBeTruthy()
  })
})

describe('own sessions', () => {
  const session = (id: number, agent: string): SessionView => ({
    id,
    createdAt: Date.UTC(2026, 10, 26, 8),
    usedAt: Date.UTC(2026, 10, 26, 9, 30),
    expiresAt: Date.UTC(2026, 10, 26, 20),
    address: `192.0.2.${id}`,
    agent,
    walk: null
  })
  // As these browsers call themselves, from memory.
  const agents = {
    'Chrome or Chromium on Linux':
      'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36',
    'Edge on Windows':
      'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36 Edg/140.0.0.0',
    'Firefox on Android': 'Mozilla/5.0 (Android 15; Mobile; rv:140.0) Gecko/140.0 Firefox/140.0',
    'Safari on iOS':
      'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.0 Mobile/15E148 Safari/604.1',
    'curl/8.5.0': 'curl/8.5.0',
    'Unknown browser': ''
  }

  test('list each browser; all but the current one can be ended', async () => {
    let left = Object.values(agents).map((agent, i) => session(i + 1, agent))
    const asked = answerWith(({ method, path }) => {
      if (method === 'DELETE') left = left.filter(({ id }) => !path.endsWith(`/${id}`))
      return { body: { current: 1, sessions: left } }
    })
    render(inApp(<SessionList />))
    await screen.findByText('this session')
    const rows = () => screen.getAllByRole('row').slice(1)
    expect(rows().map((row) => row.querySelector('td')!.textContent)).toEqual(Object.keys(agents))
    expect(within(rows()[0]!).queryByRole('button')).toBeNull()
    await userEvent.click(within(rows()[2]!).getByRole('button', { name: 'Sign out' }))
    await waitFor(() => expect(rows()).toHaveLength(5))
    expect(asked.filter(({ method }) => method === 'DELETE')).toMatchObject([
      { path: '/api/session/all/3' }
    ])
  })

  test('end all others at once; offer nothing for a single one', async () => {
    let left = [session(1, 'curl/8.5.0'), session(2, 'curl/8.5.0')]
    answerWith(({ method }) => {
      if (method === 'DELETE') left = left.slice(0, 1)
      return { body: { current: 1, sessions: left } }
    })
    render(inApp(<SessionList />))
    await userEvent.click(await screen.findByRole('button', { name: 'Sign out all others' }))
    await waitFor(() => expect(screen.queryByRole('button')).toBeNull())
  })

  test('say what cannot be ended, and keep it', async () => {
    answerWith(({ method }) =>
      method === 'DELETE'
        ? { status: 503, body: { code: 'unavailable', said: 'Not now.' } }
        : { body: { current: 1, sessions: [session(1, 'a'), session(2, 'b')] } }
    )
    render(inApp(<SessionList />))
    await userEvent.click(await screen.findByRole('button', { name: 'Sign out' }))
    expect((await screen.findByRole('alert')).textContent).toContain('Not now.')
    expect(screen.getAllByRole('row')).toHaveLength(3)
  })
})

describe('accounts', () => {
  test('refuses to delete one’s own; deletes another after confirmation', async () => {
    let accounts = [anna, bert]
    const asked = answerWith(({ method, path }) => {
      if (path === '/api/sites') return { body: [] }
      if (method === 'DELETE') accounts = [anna]
      return { body: accounts }
    })
    render(inApp(<AccountList me={1} />))
    const [own, other] = await screen.findAllByRole('button', { name: 'Remove' })
    expect(own).toHaveProperty('disabled', true)
    await userEvent.click(other!)
    expect(asked.some(({ method }) => method === 'DELETE')).toBe(false)
    const question = await screen.findByRole('tooltip')
    await userEvent.click(within(question).getByRole('button', { name: 'Remove' }))
    await waitFor(() => expect(screen.getAllByRole('row')).toHaveLength(2))
    expect(asked.find(({ method }) => method === 'DELETE')).toMatchObject({
      path: '/api/accounts/2'
    })
  })

  test('changes a role and nothing else', async () => {
    const asked = answerWith(({ path }) => ({ body: path === '/api/sites' ? [] : [anna, bert] }))
    render(inApp(<AccountList me={1} />))
    const role = await screen.findByRole('combobox', { name: 'Role of Bert' })
    await choose(role, 'Operator: deals with alarms')
    await waitFor(() =>
      expect(asked.find(({ method }) => method === 'PUT')).toEqual({
        method: 'PUT',
        path: '/api/accounts/2',
        body: { name: 'Bert', role: 'operator', sites: [] }
      })
    )
  })

  test('a refused new account names the field and loses nothing; an accepted one clears the form', async () => {
    let accounts = [anna]
    const asked = answerWith(({ method, path, body }) => {
      if (path === '/api/sites') return { body: [] }
      if (method !== 'POST') return { body: accounts }
      if (body.password.length < 12)
        return {
          status: 400,
          body: { code: 'bad-request', path: '$.password', said: 'must be at least 12 characters' }
        }
      accounts = [anna, { ...bert, ...body }]
      return { status: 201, body: accounts[1] }
    })
    render(inApp(<AccountList me={1} />))
    const field = (name: string): HTMLElement => screen.getByLabelText(name)
    await userEvent.type(field('Name'), 'Carla')
    await userEvent.type(field('User name'), 'carla')
    await userEvent.type(field('Password'), 'short')
    await userEvent.click(screen.getByRole('button', { name: 'Add' }))
    expect((await screen.findByRole('alert')).textContent).toBe(
      'Password must be at least 12 characters.'
    )
    expect(field('Name')).toHaveProperty('value', 'Carla')
    await userEvent.type(field('Password'), ' no longer')
    await userEvent.click(screen.getByRole('button', { name: 'Add' }))
    expect(await screen.findByText('carla')).toBeTruthy()
    expect(screen.queryByRole('alert')).toBeNull()
    expect(field('Name')).toHaveProperty('value', '')
    expect(asked.filter(({ method }) => method === 'POST').at(-1)!.body).toEqual({
      name: 'Carla',
      username: 'carla',
      password: 'short no longer',
      role: 'operator',
      sites: []
    })
  })

  test('with several sites, gives roles site by site', async () => {
    const site = (id: string, name: string): SiteSummary => ({
      id,
      name,
      timeZone: 'UTC',
      cameras: 0,
      newAlarms: 0,
      isSetUp: true,
      role: 'installer'
    })
    const asked = answerWith(({ path }) => ({
      body: path === '/api/sites' ? [site('n', 'North'), site('s', 'South')] : [anna, bert]
    }))
    render(inApp(<AccountList me={1} />))
    await userEvent.click(await screen.findByRole('button', { name: 'Roles of Bert by site' }))
    await choose(await screen.findByRole('combobox', { name: 'Add a site…' }), 'South')
    await waitFor(() =>
      expect(asked.find(({ method }) => method === 'PUT')).toEqual({
        method: 'PUT',
        path: '/api/accounts/2',
        body: { name: 'Bert', role: 'viewer', sites: [{ site: 's', role: 'operator' }] }
      })
    )
  })
})
