/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { said } from '../../core/messages/said.ts'
import { cleanup, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useLocation } from 'react-router'
import type { ReactNode } from 'react'
import type { Finding, QuickFix } from '../../core/readiness/index.ts'
import { findingKey } from '../../core/readiness/index.ts'
import { answerWith } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { smallSite } from '../testing/smallSite.ts'
import { Findings } from './Findings.tsx'

afterEach(cleanup)

const edit = (text: string): QuickFix => ({
  does: 'edit',
  words: said('edits.text', text),
  camera: 'slipway',
  detection: smallSite().detections[0]!.detection
})
const finding = (more: Partial<Finding> = {}): Finding =>
  ({
    code: 'switched-off',
    severity: 'warning',
    camera: 'slipway',
    detection: 'quay-edge',
    sentence: 'Quay edge is switched off.',
    fix: edit('Switch it on'),
    ...more
  }) as Finding

const Address = (): ReactNode => <output>{useLocation().pathname}</output>
const show = (findings: Finding[]): void =>
  void render(
    inApp(
      <>
        <Findings findings={findings} names={new Map([['slipway', 'Slipway']])} />
        <Address />
      </>
    )
  )

test('tells the server only which fix to apply; undo uses its answer', async () => {
  const asked = answerWith(({ path }) => ({
    body:
      path === '/readiness/fixes'
        ? { undo: { method: 'PUT', path: '/back', body: { version: 2 } } }
        : {}
  }))
  const one = finding()
  show([one])
  await userEvent.click(screen.getByRole('button', { name: 'Switch it on' }))
  await waitFor(() =>
    expect(asked).toEqual([
      {
        method: 'POST',
        path: '/readiness/fixes',
        body: { finding: findingKey(one), which: 'fix' }
      }
    ])
  )
  await userEvent.click(await screen.findByRole('button', { name: 'Undo' }))
  await waitFor(() =>
    expect(asked.at(-1)).toEqual({ method: 'PUT', path: '/back', body: { version: 2 } })
  )
})

test('tells the second of two fixes from the first', async () => {
  const asked = answerWith(() => ({ body: { undo: { method: 'PUT', path: '/back' } } }))
  show([finding({ orElse: edit('Delete it') })])
  await userEvent.click(screen.getByRole('button', { name: 'Delete it' }))
  await waitFor(() => expect(asked[0]?.body).toMatchObject({ which: 'orElse' }))
})

test('shows a refusal, and can retry', async () => {
  answerWith(() => ({ status: 409, body: { code: 'conflict', said: 'Quay edge was changed.' } }))
  show([finding()])
  await userEvent.click(screen.getByRole('button', { name: 'Switch it on' }))
  expect(await screen.findByText('Quay edge was changed.')).toBeTruthy()
  await waitFor(() =>
    expect(screen.getByRole('button', { name: 'Switch it on' }).className).not.toContain('loading')
  )
})

test('a fix that leads elsewhere navigates; each issue shows its severity and place', async () => {
  const asked = answerWith(() => ({ body: {} }))
  show([
    finding({
      severity: 'blocking',
      fix: { does: 'go', to: '/arming', words: said('edits.text', 'See the hours') } as QuickFix
    }),
    finding({
      severity: 'hint',
      sentence: said('edits.text', 'Nobody is written to.'),
      camera: undefined,
      fix: null
    })
  ])
  expect(screen.getAllByRole('img').map((e) => e.getAttribute('aria-label'))).toEqual([
    'blocking',
    'hint'
  ])
  expect(screen.getByRole('link', { name: 'Slipway' }).getAttribute('href')).toBe(
    '/bench/slipway?detection=quay-edge'
  )
  await userEvent.click(screen.getByRole('button', { name: 'See the hours' }))
  expect(screen.getByRole('status').textContent).toBe('/arming')
  expect(asked).toEqual([])
})
