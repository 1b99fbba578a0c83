/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { said } from '../../core/messages/said.ts'
import { cleanup, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ComponentProps } from 'react'
import { CheckSchema, type Check } from '../../core/formats/check.ts'
import type { NamedCheck, ProvingView, ResultView, SavedCheck } from '../../core/proving/views.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { lineAt } from '../testing/walkers.ts'
import { CheckList } from './CheckList.tsx'

afterEach(cleanup)

const gate = lineAt('gate', 0.5)
const check = (id: string, about: Check['about'], what: 'trigger' | 'silence', more = {}): Check =>
  parseWith(CheckSchema, {
    id,
    name: `Check ${id}`,
    detection: 'gate',
    about,
    by: { how: 'person', words: 'Walk to the gate', seconds: 20 },
    at: 0,
    expect: what === 'trigger' ? { what, from: 0, to: 20 } : { what },
    ...more
  })
const saved = (of: Check, last: Partial<ResultView> | null = null, more = {}): SavedCheck => ({
  camera: 'c',
  check: of,
  last: last && { run: 1, passed: true, current: true, sentence: '', at: 0, ...last },
  version: 1,
  changedAt: 0,
  ...more
})
const nothing: ProvingView = {
  checks: [],
  proposals: [],
  proposing: 0,
  unasked: 0,
  gaps: [],
  coverage: [],
  totals: null,
  run: null,
  scenes: {}
}
let selected: string[]
let taken: NamedCheck[][]
const show = (
  view: Partial<ProvingView>,
  more: Partial<ComponentProps<typeof CheckList>> = {}
): void => {
  selected = []
  taken = []
  render(
    <CheckList
      view={{ ...nothing, ...view }}
      camera="c"
      detection={gate}
      show="all"
      selected={null}
      onSelect={(id) => selected.push(id)}
      onTake={(checks) => taken.push(checks)}
      {...more}
    />
  )
}
/** Gate, what must be let through, what must not. */
const rows = (): string[][] =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((row) => [...row.children].map((cell) => cell.textContent))

test('lists checks by gate: what must trigger beside what must not', () => {
  show({
    checks: [
      saved(check('dog', 'class', 'silence')),
      saved(check('adult', 'passes', 'trigger')),
      saved(check('car', 'class', 'trigger')),
      saved(check('of-another', 'class', 'trigger'), null, { camera: 'elsewhere' })
    ]
  })
  expect(rows().map((cells) => cells.map((c) => c.replace(/[○✓]/g, '').trim()))).toEqual([
    ['Classes', expect.stringContaining('Check adult'), ''],
    ['Class', expect.stringContaining('Check car'), expect.stringContaining('Check dog')]
  ])
})

test('gives each result in words; the selected one is pressed', async () => {
  show(
    {
      checks: [
        saved(check('a', 'passes', 'trigger'), {}),
        saved(check('b', 'passes', 'trigger'), { passed: false }),
        saved(check('c', 'passes', 'trigger'), { current: false }),
        saved(check('d', 'passes', 'trigger'))
      ]
    },
    { selected: 'b' }
  )
  const buttons = screen.getAllByRole('button')
  expect(buttons.map((b) => within(b).getByRole('img').getAttribute('aria-label'))).toEqual([
    'passed',
    'failed',
    'out of date',
    'not run'
  ])
  expect(buttons.map((b) => b.getAttribute('aria-pressed'))).toEqual([
    'false',
    'true',
    'false',
    'false'
  ])
  await userEvent.click(buttons[3]!)
  expect(selected).toEqual(['d'])
})

test('filters by failed or out of date, and says when there are none', () => {
  const checks = [
    saved(check('good', 'passes', 'trigger'), {}),
    saved(check('bad', 'passes', 'trigger'), { passed: false }),
    saved(check('old', 'passes', 'trigger'), { passed: false, current: false })
  ]
  const names = (): string[] =>
    screen.getAllByRole('button').map((b) => /Check ([a-z]+)/.exec(b.textContent)![1]!)
  show({ checks }, { show: 'failed' })
  expect(names()).toEqual(['bad'])
  cleanup()
  show({ checks }, { show: 'outdated' })
  expect(names()).toEqual(['old'])
  cleanup()
  show({ checks: checks.slice(0, 1) }, { show: 'failed' })
  expect(screen.getByText('No failed checks.')).toBeTruthy()
  cleanup()
  show({ checks: checks.slice(0, 1) }, { show: 'outdated' })
  expect(screen.getByText('No checks are out of date.')).toBeTruthy()
})

test('adds proposals one by one or all; replacements separately', async () => {
  const of = (id: string, replaces: number | null = null) => ({
    camera: 'c',
    check: check(id, 'passes', 'trigger'),
    replaces
  })
  show({
    checks: [saved(check('kept', 'passes', 'trigger'))],
    proposals: [of('one'), of('two'), of('kept', 1)]
  })
  await userEvent.click(screen.getByRole('button', { name: 'Add Check two' }))
  await userEvent.click(screen.getByRole('button', { name: 'Add them' }))
  await userEvent.click(screen.getByRole('button', { name: 'Update' }))
  expect(taken.map((list) => list.map(({ camera, check: id }) => `${camera} ${id}`))).toEqual([
    ['c two'],
    ['c one', 'c two'],
    ['c kept']
  ])
})

test('says why a side has no check, and shows progress', () => {
  show({
    coverage: [
      {
        camera: 'c',
        detection: 'gate',
        gates: [
          {
            about: 'direction',
            inside: 0,
            outside: 0,
            cannot: { inside: null, outside: said('edits.text', 'Both directions count') }
          }
        ]
      }
    ]
  })
  expect(rows()).toEqual([['Direction', '', 'Both directions count']])
  cleanup()
  show({ proposing: 1 })
  expect(screen.getByText('Working out checks…')).toBeTruthy()
  cleanup()
  show({})
  expect(screen.getByText(/No checks\. Add one/)).toBeTruthy()
})
