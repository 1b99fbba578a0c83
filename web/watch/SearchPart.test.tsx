/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useEffect, useState, type ReactNode } from 'react'
import type { FoundTrigger } from '../../core/watch/search.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { SearchPart } from './SearchPart.tsx'

afterEach(cleanup)

const trigger = (id: number, more: Partial<FoundTrigger> = {}): FoundTrigger => ({
  id,
  camera: 'gate',
  detection: 'line',
  name: `Line ${id}`,
  kind: 'line',
  class: 'person',
  direction: 'leftToRight',
  way: null,
  cause: null,
  severity: null,
  at: Date.UTC(2026, 10, 26, 22, 30),
  alarm: id,
  acknowledged: true,
  clip: false,
  ...more
})
let found: FoundTrigger[]
let asked: Asked[]
let opened: number[]
/** What the search was asked for, the newest last. */
const addresses: URLSearchParams[] = []
const Search = ({ begin }: { begin: string }): ReactNode => {
  const [now, setNow] = useState(() => new URLSearchParams(begin))
  useEffect(() => void addresses.push(now), [now])
  return (
    <SearchPart
      view={{
        // Ten hours ahead of UTC: the next day is there already.
        site: { id: 's', name: 'S', timeZone: 'Australia/Brisbane' },
        cameras: [{ id: 'gate', name: 'Gate camera', detections: [], unheld: [], live: false }],
        people: []
      }}
      address={now}
      onAddress={(change) =>
        setNow((old) => {
          const next = new URLSearchParams(old)
          for (const [key, value] of Object.entries(change))
            if (value === null) next.delete(key)
            else next.set(key, value)
          return next
        })
      }
      onAlarm={({ id }) => opened.push(id)}
    />
  )
}
const show = (begin = ''): void => void render(inApp(<Search begin={begin} />))
const queries = (): string[] =>
  asked
    .filter(({ path }) => path.startsWith('/triggers?'))
    .map(({ path }) => path.slice('/triggers?'.length))

beforeEach(() => {
  found = [trigger(2), trigger(1)]
  opened = []
  asked = answerWith(({ path }) => {
    if (path === '/triggers/ways') return { body: ['Water → Land'] }
    if (path.startsWith('/triggers/counts'))
      return { body: { step: 3_600_000, buckets: [], total: 0 } }
    const after = new URL(path, 'http://x').searchParams.get('after')
    return {
      body: after ? { triggers: [trigger(0)], next: null } : { triggers: found, next: 'p2' }
    }
  })
})

test('searches for what the address says; the CSV too', async () => {
  show('camera=gate&words=fox&alarm=7&nonsense=1')
  await screen.findByText('Line 2')
  expect(queries()).toEqual(['camera=gate&words=fox'])
  expect(screen.getByRole('link', { name: /CSV/ }).getAttribute('href')).toBe(
    '/api/sites/s/triggers.csv?camera=gate&words=fox'
  )
})

test('shows site time, place, target and direction; marks new alarms', async () => {
  found = [
    trigger(3, { acknowledged: false, way: 'Water → Land', clip: true }),
    trigger(2, { class: null, direction: null, cause: 'covered' })
  ]
  show()
  const [first, second] = await screen.findAllByRole('button', { name: /Line/ })
  expect(first!.textContent).toMatch(/27 Nov.* 08:30:00/)
  expect(first!.textContent).toContain('Gate camera · person · Water → Land · from a clip')
  expect(second!.textContent).toContain('Gate camera · covered')
  expect(screen.getAllByLabelText('new')).toHaveLength(1)
  await userEvent.click(second!)
  expect(opened).toEqual([2])
})

test('says when a picture is missing', async () => {
  show()
  await screen.findByText('Line 2')
  fireEvent.error(document.querySelector('.search-result img')!)
  expect(screen.getByText('No picture')).toBeTruthy()
})

test('loads earlier ones until there are no more', async () => {
  show()
  await userEvent.click(await screen.findByRole('button', { name: 'Show earlier' }))
  expect(await screen.findByText('Line 0')).toBeTruthy()
  expect(queries()).toEqual(['', '&after=p2'])
  expect(screen.queryByRole('button', { name: 'Show earlier' })).toBeNull()
})

test('searches words once typing has stopped, trimmed', async () => {
  show()
  await userEvent.type(screen.getByLabelText('Comment contains'), ' fox on the quay ')
  await waitFor(() => expect(addresses.at(-1)!.get('words')).toBe('fox on the quay'))
  await waitFor(() => expect(queries().at(-1)).toBe('words=fox+on+the+quay'))
  expect(queries().filter((q) => q.includes('words'))).toHaveLength(1)
})

test('takes a time by the site’s clock; says what to do when nothing is found', async () => {
  found = []
  show()
  expect(await screen.findByText('No triggers yet.')).toBeTruthy()
  await userEvent.type(screen.getByLabelText('From'), '27 Nov 2026, 08:30{Enter}')
  expect(addresses.at(-1)!.get('from')).toBe(String(Date.UTC(2026, 10, 26, 22, 30)))
  expect(await screen.findByText(/Remove a filter/)).toBeTruthy()
  expect(screen.getByLabelText('From')).toHaveProperty('value', '27 Nov 2026, 08:30')
})
