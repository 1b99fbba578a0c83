/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { useLocation } from 'react-router'
import type { Role } from '../../core/accounts/accounts.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { smallSite } from '../testing/smallSite.ts'
import { FindButton } from './FindButton.tsx'

const Address = (): ReactNode => {
  const { pathname, search } = useLocation()
  return <output>{pathname + search}</output>
}
let asked: Asked[]
// Nothing scrolls in a page that is not laid out.
Element.prototype.scrollIntoView = () => {}
beforeEach(() => {
  asked = answerWith(({ path }) => ({
    body: path.startsWith('/alarms')
      ? {
          alarms: [
            { id: 7, name: 'Quay edge', cameraName: 'Slipway', lastAt: 0, state: 'waiting' }
          ],
          more: false,
          waiting: 1
        }
      : path === '/devices'
        ? [{ id: 'd1', name: 'Pontoon recorder' }]
        : smallSite()
  }))
})
afterEach(cleanup)

const open = async (role: Role): Promise<HTMLElement> => {
  render(
    inApp(
      <>
        <FindButton role={role} />
        <Address />
      </>
    )
  )
  await userEvent.keyboard('{Control>}k{/Control}')
  return screen.findByRole('combobox', { name: 'Search the site' })
}
const options = (): string[] => screen.getAllByRole('option').map((o) => o.textContent)
const address = (): string | null => screen.getByRole('status').textContent

test('Ctrl+K, a name, Enter: leads to it', async () => {
  const field = await open('installer')
  await userEvent.type(field, 'ponto')
  await waitFor(() => expect(options()[0]).toBe('Pontoon recorderDevice'))
  await userEvent.keyboard('{Enter}')
  expect(address()).toBe('/devices?device=d1')
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
})

test('arrow keys go through what is found, and round', async () => {
  const field = await open('installer')
  await userEvent.type(field, 'quay edge')
  await waitFor(() => expect(options().length).toBeGreaterThan(1))
  const selected = (): string | null => screen.getByRole('option', { selected: true }).textContent
  const all = options()
  expect(selected()).toBe(all[0])
  await userEvent.keyboard('{ArrowUp}')
  expect(selected()).toBe(all.at(-1))
  expect(all.at(-1)).toBe('Alarms with “quay edge” in a commentAlarm')
  await userEvent.keyboard('{Enter}')
  expect(address()).toBe('/watch/search?words=quay%20edge')
})

test('nothing of that name: says so, and offers to search comments', async () => {
  const field = await open('installer')
  await userEvent.type(field, 'zebra')
  expect(await screen.findByText('Nothing is called “zebra”.')).toBeTruthy()
  expect(options()).toHaveLength(1)
})

test('an operator is led to places and alarms of theirs, and nothing else is asked for', async () => {
  const field = await open('operator')
  await waitFor(() => expect(options()).toContain('Quay edge, 1 Jan 1970, 00:00Alarm'))
  expect(options().slice(0, 3)).toEqual(['WatchPlace', 'HandoverPlace', 'Search alarmsCommand'])
  await userEvent.type(field, 'quay')
  await userEvent.keyboard('{Enter}')
  expect(address()).toBe('/watch?alarm=7')
  expect(asked.map(({ path }) => path.split('?')[0])).not.toContain('/devices')
  expect(asked.map(({ path }) => path)).not.toContain('/actions')
})
