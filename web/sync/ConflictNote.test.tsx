/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { said } from '../../core/messages/said.ts'
import { act, cleanup, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useSyncExternalStore, type ReactNode } from 'react'
import { answerWith, type Asked } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { popup, smallSite } from '../testing/smallSite.ts'
import { ConflictNote } from './ConflictNote.tsx'
import { SiteDocument } from './siteDocument.ts'

afterEach(cleanup)

function Endpoints({ document }: { document: SiteDocument }): ReactNode {
  const { endpoints, conflict } = useSyncExternalStore(document.subscribe, document.getState)
  return (
    <>
      {conflict && <ConflictNote conflict={conflict} document={document} />}
      <ul>
        {endpoints.map(({ id, name }) => (
          <li key={id}>{name}</li>
        ))}
      </ul>
    </>
  )
}

/** Somebody saved version 3 while version 1 was being edited here. */
async function conflicting(): Promise<{ document: SiteDocument; asked: Asked[] }> {
  const asked = answerWith(({ body }) =>
    body.version === 1
      ? {
          status: 409,
          body: {
            code: 'conflict',
            said: 'changed',
            current: { version: 3, changedAt: 5, endpoint: { ...popup('one'), name: 'Theirs' } }
          }
        }
      : { body: { version: body.version + 1 } }
  )
  const document = new SiteDocument(smallSite())
  render(inApp(<Endpoints document={document} />, '/', 'Pacific/Auckland'))
  act(() => document.editEndpoint({ ...popup('one'), name: 'Mine' }, said('edits.text', 'Rename')))
  // Changed 5 ms into 1970, when it was noon in Auckland.
  await screen.findByText(
    'Mine was changed in another window at 12:00:00. Your change is not saved yet.'
  )
  return { document, asked }
}
const named = (): (string | null)[] =>
  screen.getAllByRole('listitem').map(({ textContent }) => textContent)

test('keeping mine saves it over the current version', async () => {
  const { asked } = await conflicting()
  expect(named()).toContain('Mine')
  await userEvent.click(screen.getByRole('button', { name: 'Save mine' }))
  await waitFor(() =>
    expect(asked.at(-1)).toMatchObject({
      method: 'PUT',
      path: '/endpoints/one',
      body: { version: 3, endpoint: { name: 'Mine' } }
    })
  )
  expect(screen.queryByText(/in another window/)).toBeNull()
  expect(named()).toContain('Mine')
})

test('taking theirs shows it and sends nothing', async () => {
  const { asked } = await conflicting()
  const before = asked.length
  await userEvent.click(screen.getByRole('button', { name: 'Use theirs' }))
  expect(named()).toContain('Theirs')
  expect(named()).not.toContain('Mine')
  expect(screen.queryByText(/in another window/)).toBeNull()
  expect(asked).toHaveLength(before)
})
