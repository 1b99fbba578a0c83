/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { cleanup, render, screen } from '@testing-library/react'
import type { HandoverView } from '../../core/handover/views.ts'
import { answerWith } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { Obstacles } from './Obstacles.tsx'

afterEach(cleanup)

const view = { open: [], accepted: [], hints: [] } as Partial<HandoverView> as HandoverView

test('without cameras, nothing is said to be clean', () => {
  // The site of components on their own has none.
  answerWith(() => ({ body: [] }))
  render(inApp(<Obstacles view={view} />, '/handover'))
  expect(screen.getByText(/This site has no cameras yet/)).toBeTruthy()
  expect(screen.getByRole('link').getAttribute('href')).toBe('/site')
  expect(screen.queryByText(/clean record/)).toBeNull()
})
