/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { Finding, ReadinessView } from '../../../core/readiness/index.ts'
import { answerWith } from '../../testing/answers.ts'
import { inApp } from '../../testing/inApp.tsx'
import { benchDocument, benchView } from '../../testing/onBench.tsx'
import { RailReadiness } from './RailReadiness.tsx'

afterEach(cleanup)

const finding = (
  sentence: string,
  step: Finding['step'],
  detection: string | null,
  severity: Finding['severity'] = 'warning'
): Finding =>
  ({
    code: step,
    severity,
    step,
    camera: 'c',
    device: null,
    detection,
    sentence,
    fix: null
  }) as never
const view: ReadinessView = {
  cameras: [
    {
      id: 'c',
      steps: { drawn: 'done', armed: 'done', linked: 'failed', sent: 'open', proven: 'empty' },
      changes: 1
    }
  ],
  findings: [
    finding('Gate has no actions.', 'linked', 'gate', 'blocking'),
    finding('1 unsent change.', 'sent', null),
    finding('Fence has no checks.', 'proven', 'fence')
  ]
}
const show = (selected: string | null = null): void => {
  answerWith(() => ({ body: view }))
  render(
    inApp(<RailReadiness camera="c" selected={selected} document={benchDocument(benchView([]))} />)
  )
}
const items = (): string[] =>
  screen.queryAllByRole('listitem').map((item) => item.textContent.trim())

test('what was found stands in one line, until somebody opens it', async () => {
  show()
  const line = await screen.findByRole('button', { name: '3 issues, 1 blocking' })
  expect([line.getAttribute('aria-expanded'), items()]).toEqual(['false', []])
  await userEvent.click(line)
  expect(items()).toEqual(['Gate has no actions.', '1 unsent change.', 'Fence has no checks.'])
  await userEvent.click(line)
  expect(items()).toEqual([])
})

test('a step opens what is missing for it; where nothing is, it leads to its place', async () => {
  show()
  await userEvent.click(await screen.findByRole('button', { name: /^Linked/ }))
  expect(items()).toEqual(['Gate has no actions.'])
  await userEvent.click(screen.getByRole('button', { name: /^Scheduled/ }))
  expect(items()).toEqual([])
  expect(screen.getByRole('link', { name: 'Arming' }).getAttribute('href')).toBe('/arming')
  await userEvent.click(screen.getByRole('button', { name: /^Drawn/ }))
  expect(screen.getByText('Nothing is missing here.')).toBeTruthy()
})

test('of a chosen detection: what is about it, and about the camera', async () => {
  show('fence')
  await userEvent.click(await screen.findByRole('button', { name: '2 issues' }))
  expect(items()).toEqual(['1 unsent change.', 'Fence has no checks.'])
})
