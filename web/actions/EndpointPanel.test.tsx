/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { said } from '../../core/messages/said.ts'
import { cleanup, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useSyncExternalStore, type ReactNode } from 'react'
import {
  ENDPOINT_KINDS,
  EndpointSchema,
  OUTPUT_KINDS,
  type Endpoint,
  type EndpointKind
} from '../../core/formats/actions.ts'
import { isOneOf } from '../../core/isOneOf.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { SiteDocument } from '../sync/siteDocument.ts'
import { inApp } from '../testing/inApp.tsx'
import { answerWith, type Asked } from '../testing/answers.ts'
import { smallSite } from '../testing/smallSite.ts'
import { EndpointPanel } from './EndpointPanel.tsx'
import { FREE_KINDS, byKind, faceOf } from './kinds.ts'
import { newEndpoint } from './newEndpoint.ts'

const simulators = { host: 'simulated', pages: 'http://127.0.0.1:1' }
const made = (kind: EndpointKind): Endpoint =>
  newEndpoint(
    kind,
    [],
    simulators,
    isOneOf(OUTPUT_KINDS, kind) ? { device: 'cam', token: 'out', name: 'Out' } : undefined
  )

let document: SiteDocument
let asked: Asked[]
function Panel({ id }: { id: string }): ReactNode {
  const state = useSyncExternalStore(document.subscribe, document.getState)
  const endpoint = state.endpoints.find((e) => e.id === id)
  return endpoint ? (
    <EndpointPanel
      endpoint={endpoint}
      missing={null}
      view={smallSite()}
      state={state}
      document={document}
      onRemoved={() => {}}
    />
  ) : (
    <p>gone</p>
  )
}
const show = (endpoint: Endpoint): void => {
  document.editEndpoint(endpoint, said('edits.text', 'New'))
  render(inApp(<Panel id={endpoint.id} />))
}
const now = (id: string): Endpoint => document.getState().endpoints.find((e) => e.id === id)!
const type = async (label: string, text: string): Promise<void> => {
  const field = screen.getByRole('textbox', { name: new RegExp(`^${label}`) })
  await userEvent.clear(field)
  await userEvent.type(field, `${text}{Enter}`)
}

beforeEach(() => {
  asked = answerWith(({ path }) =>
    path === '/simulators'
      ? { body: { running: simulators } }
      : path.endsWith('/test')
        ? { status: 502, body: { code: 'internal', said: 'no answer within 8 s' } }
        : { body: { version: 1 } }
  )
  document = new SiteDocument(smallSite())
})
afterEach(cleanup)

describe('a new action of each kind', () => {
  test.each(ENDPOINT_KINDS)('%s: is valid by default, and its panel names it', (kind) => {
    const endpoint = made(kind)
    expect(parseWith(EndpointSchema, endpoint)).toEqual(endpoint)
    show(endpoint)
    expect(screen.getByRole('heading', { level: 2 }).textContent).toContain(faceOf(kind).name)
    expect(screen.getByRole('button', { name: new RegExp(faceOf(kind).test) })).toBeDefined()
    expect(now(endpoint.id)).toEqual(endpoint)
  })

  test('has a unique name; needs no simulator', () => {
    const first = newEndpoint('webhook', [], null)
    const second = newEndpoint('webhook', [first.name], null)
    expect(second.name).toBe(`${first.name} 2`)
    for (const kind of FREE_KINDS)
      expect(JSON.stringify(newEndpoint(kind, [], null))).not.toContain('simulated')
  })

  test('come in the matrix’ order: outputs, messages, records', () => {
    const groups = [...ENDPOINT_KINDS]
      .reverse()
      .map(made)
      .sort(byKind)
      .map(({ kind }) => faceOf(kind).group)
    expect(groups).toEqual([
      ...Array<string>(4).fill('outputs'),
      ...Array<string>(4).fill('messages'),
      ...Array<string>(2).fill('records')
    ])
  })
})

describe('settings', () => {
  // Ranges: docs/references.md, facts of the trade (common practice, no source).
  test.each([
    ['strobe', 'Flashes for', '61', 'Duration is 61 s; enter 1 to 60 s.', '60'],
    ['speaker', 'Volume', '0', 'Volume is 0%; enter 1 to 100%.', '100'],
    ['relay', 'Closed for', '601', 'Duration is 601 s; enter 1 to 600 s.', '600'],
    ['buzzer', 'Sounds for', 'ten', '"ten" is not a number', '10'],
    ['station', 'Port', '65536', 'Port is 65536; enter 1 to 65535.', '65535'],
    ['recording', 'After trigger', '0', 'After trigger is 0 s; enter 1 to 600 s.', '1'],
    ['snapshots', 'Pictures before', '6', 'Pictures before is 6; enter 0 to 5.', '5']
  ] as const)(
    '%s, %s: out of range it says the range and keeps what was typed; within it is kept',
    async (kind, label, wrong, words, right) => {
      const endpoint = made(kind)
      show(endpoint)
      await type(label, wrong)
      expect((await screen.findByRole('alert')).textContent).toContain(words)
      expect(now(endpoint.id)).toEqual(endpoint)
      await type(label, right)
      expect(Object.values(now(endpoint.id))).toContain(Number(right))
    }
  )

  test('refuses an invalid address, and says what is right', async () => {
    const hook = made('webhook')
    show(hook)
    await type('Address', 'ftp://example.org')
    expect((await screen.findByRole('alert')).textContent).toContain(
      'must be an address such as https://example.org/alarms'
    )
    await type('Address', 'https://example.org/alarms')
    expect(now(hook.id)).toMatchObject({ url: 'https://example.org/alarms' })
    document.undo()
    expect(now(hook.id)).toEqual(hook)
  })

  test('takes several recipients in one field; an invalid one keeps the previous', async () => {
    const mail = made('email')
    show(mail)
    await type('To', 'duty@example.org, second@example.org')
    expect(now(mail.id)).toMatchObject({ recipients: ['duty@example.org', 'second@example.org'] })
    await type('To', 'nobody')
    expect((await screen.findByRole('alert')).textContent).toContain('must be an e-mail address')
    expect(now(mail.id)).toMatchObject({ recipients: ['duty@example.org', 'second@example.org'] })
  })
})

test('a test says what is wrong, and links to where its result can be seen', async () => {
  const station = made('station')
  show(station)
  await waitFor(() => expect(document.getState().status).toBe('saved'))
  await userEvent.click(screen.getByRole('button', { name: /Test$/ }))
  await waitFor(() =>
    expect(screen.getByRole('status').textContent).toContain('No answer within 8 s')
  )
  expect(asked.map(({ path }) => path)).toContain(`/endpoints/${station.id}/test`)
  const link = await screen.findByRole('link', { name: /simulator/ })
  expect(link.getAttribute('href')).toBe(`${simulators.pages}/station`)
})

test('deletes after confirmation, and restores with one undo', async () => {
  const popup = made('popup')
  show(popup)
  await userEvent.click(screen.getByRole('button', { name: `Delete ${popup.name}` }))
  await userEvent.click(await screen.findByRole('button', { name: 'Delete' }))
  expect(screen.getByText('gone')).toBeDefined()
  document.undo()
  expect(now(popup.id)).toEqual(popup)
})
