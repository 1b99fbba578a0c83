/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { act, cleanup, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useSyncExternalStore, type ReactNode } from 'react'
import { useLocation } from 'react-router'
import type { SiteActionsView } from '../../core/api.ts'
import { EndpointSchema, type Actions } from '../../core/formats/actions.ts'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { SiteDocument } from '../sync/siteDocument.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { chooseFrom } from '../testing/choose.ts'
import { inApp } from '../testing/inApp.tsx'
import { popup, smallSite } from '../testing/smallSite.ts'
import { AlarmPanel } from './AlarmPanel.tsx'

const kept = { version: 1, changedAt: 0 }
const siren = parseWith(EndpointSchema, {
  id: 'siren',
  name: 'Siren',
  kind: 'relay',
  device: 'cam',
  output: 'out-1',
  mode: 'pulse',
  seconds: 10
})

let document: SiteDocument
let asked: Asked[]
let refusal: { status: number; body: unknown } | null

function Panel(): ReactNode {
  const state = useSyncExternalStore(document.subscribe, document.getState)
  return (
    <>
      <p data-testid="address">{useLocation().pathname}</p>
      <AlarmPanel
        detection={state.detections[0]!}
        cameraName="Cam"
        state={state}
        document={document}
      />
    </>
  )
}
const show = (more: Partial<SiteActionsView> = {}): void => {
  document = new SiteDocument(
    smallSite({
      endpoints: [popup('one'), popup('two'), siren].map((endpoint) => ({
        ...kept,
        endpoint,
        testedAt: null,
        testError: null
      })),
      ...more
    })
  )
  render(inApp(<Panel />, '/actions'))
}
const actions = (): Actions => document.actionsOf('cam/a')
const button = (name: string | RegExp) => screen.getByRole('button', { name })
const type = async (label: RegExp, text: string): Promise<void> => {
  const field = screen.getByRole('textbox', { name: label })
  await userEvent.clear(field)
  await userEvent.type(field, `${text}{Enter}`)
}

beforeEach(() => {
  refusal = null
  asked = answerWith(({ path }) => {
    if (path === '/triggers') return refusal ?? { status: 201, body: {} }
    return { body: { version: 2 } }
  })
})
afterEach(cleanup)

test('links all and unlinks all, each as one step', async () => {
  show()
  expect(button('Unlink all')).toHaveProperty('disabled', true)
  await userEvent.click(button('Link all'))
  expect(actions().links).toEqual(['one', 'two', 'siren'])
  expect(button('Link all')).toHaveProperty('disabled', true)
  await userEvent.click(button('Unlink all'))
  expect(actions().links).toEqual([])
  act(() => document.undo())
  expect(actions().links).toEqual(['one', 'two', 'siren'])
})

test('default actions: none to add without; what was accepted of this one stays', async () => {
  show()
  expect(button('Add default actions')).toHaveProperty('disabled', true)
  cleanup()
  const usual = { ...NO_ACTIONS, links: ['two'], priority: 'high' as const, groupSeconds: 90 }
  show({ usual: { version: 1, changedAt: 0, actions: usual } })
  await userEvent.click(button('Add default actions'))
  expect(actions()).toEqual({ ...usual, accepted: NO_ACTIONS.accepted })
})

test('numbers: a comma is understood, and what is out of range says what would be right', async () => {
  show()
  await type(/^Group triggers within/, '2,5')
  expect(actions().groupSeconds).toBe(2.5)
  await type(/^Pause actions for/, '-5')
  expect(screen.getAllByRole('alert').at(-1)!.textContent).toMatch(/0/)
  expect(actions().quietSeconds).toBe(NO_ACTIONS.quietSeconds)
  await type(/^Pause actions for/, '45')
  expect(actions().quietSeconds).toBe(45)
})

test('severity, priority and what acknowledging takes', async () => {
  show()
  await chooseFrom('Priority', 'high')
  await userEvent.click(screen.getByRole('checkbox', { name: 'Require comment' }))
  await chooseFrom('On acknowledge', 'switch Siren off')
  expect(actions()).toMatchObject({
    priority: 'high',
    acknowledge: { comment: true, confirm: false, switch: { on: false, endpoint: 'siren' } }
  })
  await chooseFrom('On acknowledge', 'no output')
  expect(actions().acknowledge.switch).toBeUndefined()
})

test('a trigger by hand asks first, and leads to the alarms', async () => {
  show()
  await userEvent.click(button(/Trigger now/))
  expect(await screen.findByText('All linked actions run, as after a real trigger.')).toBeTruthy()
  expect(asked.filter(({ path }) => path === '/triggers')).toEqual([])
  await userEvent.click(button('Trigger'))
  await waitFor(() => expect(screen.getByTestId('address').textContent).toBe('/actions/alarms'))
  expect(asked.filter(({ path }) => path === '/triggers').map(({ body }) => body)).toEqual([
    { key: expect.stringMatching(/^try-\d+$/), camera: 'cam', detection: 'a' }
  ])
})

test('why nothing could be triggered is said, and one stays where one is', async () => {
  refusal = { status: 503, body: { code: 'unavailable', said: 'The database is away.' } }
  show()
  await userEvent.click(button(/Trigger now/))
  await userEvent.click(await screen.findByRole('button', { name: 'Trigger' }))
  expect(await screen.findByText('The database is away.')).toBeTruthy()
  expect(screen.getByTestId('address').textContent).toBe('/actions')
})

test('one that is off cannot be triggered by hand', () => {
  const site = smallSite()
  const [first, ...others] = site.detections
  show({
    detections: [
      { ...first!, detection: { ...first!.detection, enabled: false, schedule: 'nights' } },
      ...others
    ]
  })
  expect(button(/Trigger now/)).toHaveProperty('disabled', true)
  expect(screen.getByRole('link', { name: 'Open its schedule' }).getAttribute('href')).toBe(
    '/arming/nights'
  )
})
