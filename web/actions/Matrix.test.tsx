/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { said } from '../../core/messages/said.ts'
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useSyncExternalStore, type ReactNode } from 'react'
import { SiteDocument } from '../sync/siteDocument.ts'
import { answerWith } from '../testing/answers.ts'
import { popup, smallSite } from '../testing/smallSite.ts'
import { Matrix, type Column } from './Matrix.tsx'

const columns: Column[] = ['one', 'two'].map((id) => ({
  id,
  name: id,
  endpoint: popup(id),
  missing: null
}))

function Linked({ document }: { document: SiteDocument }): ReactNode {
  const { detections } = useSyncExternalStore(document.subscribe, document.getState)
  return (
    <Matrix
      rows={detections}
      columns={columns}
      cameraName={(camera) => camera}
      crossing={(row, column) => ({
        linked: document.actionsOf(`cam/${row.detection.id}`).links.includes(column.id),
        share: 1,
        never: null
      })}
      chosenRow={null}
      chosenColumn={null}
      onRow={() => {}}
      onColumn={() => {}}
      onLink={(crossings, linked) => document.link(crossings, linked, said('edits.text', 'Link'))}
    />
  )
}

let document: SiteDocument
beforeEach(() => {
  answerWith(() => ({ body: { version: 1 } }))
  document = new SiteDocument(smallSite())
  render(<Linked document={document} />)
})
afterEach(cleanup)

const links = (): Record<string, readonly string[]> =>
  Object.fromEntries(['a', 'b', 'c'].map((id) => [id, document.actionsOf(`cam/${id}`).links]))
const cell = (row: number, column: number): HTMLElement =>
  screen.getByRole('grid').querySelector<HTMLElement>(`[data-cell="${row} ${column}"]`)!

test('by keyboard: toggles a crossing with the space bar, a block with Shift', async () => {
  cell(0, 0).focus()
  await userEvent.keyboard(' ')
  expect(links()).toEqual({ a: ['one'], b: [], c: [] })
  await userEvent.keyboard('{ArrowDown}')
  await waitFor(() => expect(globalThis.document.activeElement).toBe(cell(1, 0)))
  await userEvent.keyboard('{Shift>}{ArrowDown}{ArrowRight}{/Shift}')
  await waitFor(() => expect(globalThis.document.activeElement).toBe(cell(2, 1)))
  await userEvent.keyboard(' ')
  expect(links()).toEqual({ a: ['one'], b: ['one', 'two'], c: ['one', 'two'] })
})

test('a drag sets all crossings it passes as one step', () => {
  fireEvent.pointerDown(cell(0, 1), { button: 0 })
  fireEvent.pointerEnter(cell(1, 1))
  fireEvent.pointerEnter(cell(2, 1))
  fireEvent.pointerUp(cell(2, 1))
  expect(links()).toEqual({ a: ['two'], b: ['two'], c: ['two'] })
  act(() => document.undo())
  expect(links()).toEqual({ a: [], b: [], c: [] })
})

test('the right mouse button links nothing', () => {
  fireEvent.pointerDown(cell(0, 0), { button: 2 })
  fireEvent.pointerUp(cell(0, 0))
  expect(links()).toEqual({ a: [], b: [], c: [] })
})
