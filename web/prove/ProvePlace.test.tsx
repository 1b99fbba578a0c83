/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { cleanup, render, screen } from '@testing-library/react'
import type { ReactNode } from 'react'
import type { ProvingView } from '../../core/proving/views.ts'
import { answerWith } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { ProvePlace } from './ProvePlace.tsx'
import { WalkPart } from './walk/WalkPart.tsx'

afterEach(cleanup)

/** A site on which nothing is drawn. */
const nothing: ProvingView = {
  ...{ checks: [], proposals: [], proposing: 0, unasked: 0, gaps: [], coverage: [] },
  ...{ totals: null, run: null, scenes: {} }
}
const open = (place: ReactNode): void => {
  answerWith(({ path }) => ({
    body: path === '/proving' ? nothing : { site: { cameras: [] }, detections: [], cameras: [] }
  }))
  render(inApp(place, '/prove'))
}

test.each([
  ['the checks', <ProvePlace key="checks" />, 'No checks yet'],
  ['a walk', <WalkPart key="walk" />, 'No detections to walk']
])('without a detection, %s lead to the Bench', async (_, place, name) => {
  open(place)
  expect(await screen.findByRole('heading', { name })).toBeTruthy()
  expect(screen.getByRole('link').getAttribute('href')).toBe('/bench')
})
