/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import './testing/inApp.tsx'
import { useHeldStill } from './useHeldStill.ts'

afterEach(cleanup)

const Lines = ({ names }: { names: readonly string[] }): ReactNode => {
  const [shown, hold] = useHeldStill(names)
  return (
    <ul onPointerDown={hold}>
      {shown.map((name) => (
        <li key={name}>{name}</li>
      ))}
    </ul>
  )
}
const lines = (): (string | null)[] =>
  screen.queryAllByRole('listitem').map((line) => line.textContent)

test('what is pressed stays where it is until it has been clicked', async () => {
  const { rerender } = render(<Lines names={['door']} />)
  rerender(<Lines names={['edge', 'door']} />)
  expect(lines()).toEqual(['edge', 'door'])
  fireEvent.pointerDown(screen.getByText('door'))
  rerender(<Lines names={['yard', 'edge', 'door']} />)
  expect(lines()).toEqual(['edge', 'door'])
  fireEvent.pointerUp(screen.getByText('door'))
  // Browsers look for what is clicked only now. A second press begins from what the first one has left.
  expect(lines()).toEqual(['edge', 'door'])
  fireEvent.pointerDown(screen.getByText('door'))
  expect(lines()).toEqual(['edge', 'door'])
  fireEvent.pointerUp(screen.getByText('door'))
  await waitFor(() => expect(lines()).toEqual(['yard', 'edge', 'door']))
})

test.each(['pointercancel', 'blur'])(
  'goes on after %s: no end of the press is told',
  async (what) => {
    const { rerender } = render(<Lines names={['door']} />)
    fireEvent.pointerDown(screen.getByText('door'))
    rerender(<Lines names={['edge', 'door']} />)
    expect(lines()).toEqual(['door'])
    fireEvent(window, new Event(what))
    await waitFor(() => expect(lines()).toEqual(['edge', 'door']))
  }
)
