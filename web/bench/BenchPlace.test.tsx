/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { cleanup, render, screen } from '@testing-library/react'
import { Route, Routes } from 'react-router'
import { answerWith } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { BenchPlace } from './BenchPlace.tsx'

afterEach(cleanup)

const open = (address: string): void =>
  void render(
    inApp(
      <Routes>
        <Route path="/bench/:camera?" element={<BenchPlace />} />
      </Routes>,
      address
    )
  )

test('without a camera says so, and where one is added', async () => {
  answerWith(() => ({ status: 500, body: {} }))
  open('/bench')
  expect(await screen.findByRole('heading', { name: 'No cameras' })).toBeTruthy()
  expect(screen.getByRole('link').getAttribute('href')).toBe('/site')
})

test('an address of a camera that is not there leads back to the site', async () => {
  answerWith(({ path }) => ({
    status: 404,
    body: { code: 'not-found', said: { code: 'server.isNotThere', values: [path] } }
  }))
  open('/bench/gone')
  expect(await screen.findByRole('heading', { name: 'No such camera' })).toBeTruthy()
  expect(screen.getByRole('link').getAttribute('href')).toBe('/site')
})

test('trouble of the server is told as such, not as a missing camera', async () => {
  answerWith(() => ({ status: 503, body: { code: 'unavailable', said: 'The database is away' } }))
  open('/bench/slipway')
  expect((await screen.findByRole('alert')).textContent).toContain('The database is away')
})
