/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor } from '@testing-library/react'
import type { Role } from '../../core/accounts/accounts.ts'
import { answerWith } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { WatchPlace } from './WatchPlace.tsx'

afterEach(cleanup)

/** Watch of a site without cameras, with somebody signed in. */
async function open(role: Role): Promise<void> {
  const answers: Record<string, unknown> = {
    '/api/session': { id: 1, name: 'Mara Quill', username: 'mara', role, sites: [] },
    '/watch': { site: { id: 's', name: 'Site', timeZone: 'UTC' }, cameras: [], people: [] },
    '/alarms': { alarms: [], waiting: 0 },
    '/alarms?state=waiting': { alarms: [], waiting: 0 }
  }
  answerWith(({ path }) =>
    path in answers
      ? { body: answers[path] }
      : { status: 404, body: { code: 'not-found', said: 'Not asked here' } }
  )
  render(inApp(<WatchPlace />, '/watch'))
  expect(await screen.findByText('No cameras')).toBeTruthy()
}

test('without cameras says so, and leads installers to the site page', async () => {
  await open('installer')
  await waitFor(() =>
    expect(screen.getByRole('link', { name: 'Open the site page' }).getAttribute('href')).toBe(
      '/site'
    )
  )
  // There is none to show large.
  expect(screen.queryByText('One large')).toBeNull()
})

test('without cameras leads operators nowhere that is not theirs', async () => {
  await open('operator')
  expect(screen.queryByRole('link', { name: 'Open the site page' })).toBeNull()
})
