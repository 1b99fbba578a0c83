/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, jest, test } from '@jest/globals'
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { Link, MemoryRouter, Route, Routes } from 'react-router'
import { PartBoundary, PlaceBoundary } from './Boundary.tsx'

afterEach(cleanup)

let broken = true
function Fragile({ what }: { what: string }): ReactNode {
  if (broken) throw new Error(`no ${what} here`)
  return <p>{what} is shown</p>
}

/** What fails is told to the console as well; that is not what is looked at. */
const quietly = async (work: () => Promise<void>): Promise<void> => {
  const said = jest.spyOn(console, 'error').mockImplementation(() => {})
  try {
    await work()
  } finally {
    said.mockRestore()
  }
}

const shown = (bar: ReactNode): void =>
  void render(
    <MemoryRouter initialEntries={['/bench']}>
      <PartBoundary>{bar}</PartBoundary>
      <Link to="/site">Site</Link>
      <PlaceBoundary>
        <Routes>
          <Route path="/bench" element={<Fragile what="picture" />} />
          <Route path="/site" element={<p>the site is shown</p>} />
        </Routes>
      </PlaceBoundary>
    </MemoryRouter>
  )

test('a failed place says why, can retry, and leaves the rest alone', () =>
  quietly(async () => {
    broken = true
    shown(<p>the bar is shown</p>)
    expect(screen.getByRole('alert').textContent).toContain('no picture here')
    expect(screen.getByText('the bar is shown')).toBeTruthy()
    broken = false
    await userEvent.click(screen.getByRole('button', { name: 'Retry' }))
    expect(screen.getByText('picture is shown')).toBeTruthy()
  }))

test('navigating away clears the failure', () =>
  quietly(async () => {
    broken = true
    shown(null)
    expect(screen.getByRole('heading', { name: 'This page has failed' })).toBeTruthy()
    await userEvent.click(screen.getByRole('link', { name: 'Site' }))
    expect(screen.getByText('the site is shown')).toBeTruthy()
    expect(screen.queryByRole('alert')).toBeNull()
  }))

test('a failed top bar leaves the place alone', () =>
  quietly(async () => {
    broken = true
    render(
      <MemoryRouter>
        <PartBoundary>
          <Fragile what="alarm" />
        </PartBoundary>
        <PlaceBoundary>
          <p>the place is shown</p>
        </PlaceBoundary>
      </MemoryRouter>
    )
    expect(screen.getByText('the place is shown')).toBeTruthy()
    broken = false
    await userEvent.click(screen.getByRole('button', { name: 'Retry' }))
    expect(screen.getByText('alarm is shown')).toBeTruthy()
  }))
