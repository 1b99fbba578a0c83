/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { act, cleanup, render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useSyncExternalStore, type ReactNode } from 'react'
import type { SiteActionsView } from '../../core/api.ts'
import { SiteDocument } from '../sync/siteDocument.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { smallSite } from '../testing/smallSite.ts'
import { MailAndPeople } from './MailAndPeople.tsx'

let document: SiteDocument
let asked: Asked[]
let refusal: { status: number; body: unknown } | null
let running: { host: string; pages: string } | null

function Shown({ view }: { view: SiteActionsView }): ReactNode {
  const state = useSyncExternalStore(document.subscribe, document.getState)
  return <MailAndPeople view={view} state={state} document={document} />
}
const show = (more: Partial<SiteActionsView> = {}): void => {
  const view = smallSite(more)
  document = new SiteDocument(view)
  render(inApp(<Shown view={view} />))
}
const people = () => document.getState().people
const press = (name: string | RegExp) => userEvent.click(screen.getByRole('button', { name }))
const type = async (field: HTMLElement, text: string): Promise<void> => {
  await userEvent.clear(field)
  if (text) await userEvent.type(field, text)
}
/** Why it is not saved; other alerts stand there from the beginning. */
const error = () => window.document.querySelector('.field-error')?.textContent
const saves = () => asked.filter(({ path }) => path === '/settings/mail')

beforeEach(() => {
  refusal = null
  running = null
  asked = answerWith(({ path }) =>
    path === '/simulators'
      ? { body: { running } }
      : (refusal ?? { body: path === '/settings/mail' ? { version: 2 } : { version: 1 } })
  )
})
afterEach(cleanup)

describe('the mail server', () => {
  test('none: says what does not work without, and is saved with what was typed', async () => {
    show()
    expect(screen.getByText('Without a mail server, no e-mail is sent.')).toBeTruthy()
    await type(screen.getByLabelText('Server'), ' mail.quay.example ')
    await userEvent.click(screen.getByRole('combobox', { name: 'Encryption' }))
    await userEvent.click(await screen.findByTitle('TLS (usually port 465)'))
    await type(screen.getByLabelText('Port'), '465')
    await type(screen.getByLabelText('Sender'), 'alarms@quay.example')
    await press('Save')
    expect(await screen.findByRole('status')).toHaveProperty(
      'textContent',
      'Saved. Test each e-mail to be sure.'
    )
    // Without a password typed none is sent: one that is saved would be lost by it.
    expect(saves().map(({ method, body }) => [method, body])).toEqual([
      [
        'PUT',
        {
          version: 1,
          mail: {
            host: 'mail.quay.example',
            port: 465,
            encryption: 'tls',
            username: null,
            sender: 'alarms@quay.example'
          }
        }
      ]
    ])
  })

  test.each([
    ['Server', 'two words', /host/],
    ['Port', '70000', /65535/],
    ['Port', 'smtp', /65535/],
    ['Sender', 'nobody', /address/]
  ])(
    '%s “%s”: says what would be right, asks nothing, and loses nothing',
    async (at, text, why) => {
      show()
      await type(screen.getByLabelText('Server'), 'mail.quay.example')
      await type(screen.getByLabelText('Sender'), 'alarms@quay.example')
      await type(screen.getByLabelText(at), text)
      await press('Save')
      await waitFor(() => expect(error()).toMatch(why))
      expect(saves()).toEqual([])
      expect(screen.getByLabelText(at)).toHaveProperty('value', text)
      expect(screen.queryByRole('status')).toBeNull()
    }
  )

  test('a saved one shows what it is; its password is changed, taken away, or left', async () => {
    const mail = {
      host: 'mail.quay.example',
      port: 25,
      encryption: 'none',
      username: 'quay',
      sender: 'alarms@quay.example'
    } as const
    const kept = { mail, hasPassword: true, version: 7, changedAt: 0 }
    show({ mail: kept })
    expect(screen.queryByText(/no e-mail is sent/)).toBeNull()
    const password = screen.getByLabelText('Password')
    expect(password).toHaveProperty('placeholder', 'saved, encrypted')
    await press('Save')
    await waitFor(() => expect(saves()).toHaveLength(1))
    await type(password, 'by-the-quay')
    await press('Save')
    await waitFor(() => expect(saves()).toHaveLength(2))
    await type(password, '')
    await press('Save')
    await waitFor(() => expect(saves()).toHaveLength(3))
    expect(saves().map(({ body }) => body)).toEqual([
      { mail, version: 7 },
      { mail, version: 7, password: 'by-the-quay' },
      { mail, version: 7, password: null }
    ])
  })

  test('what the server refuses is said; a further change takes “Saved” away', async () => {
    show()
    await type(screen.getByLabelText('Server'), 'mail.quay.example')
    await type(screen.getByLabelText('Sender'), 'alarms@quay.example')
    refusal = { status: 503, body: { code: 'unavailable', said: 'The database is away.' } }
    await press('Save')
    await waitFor(() => expect(error()).toBe('The database is away.'))
    refusal = null
    await press('Save')
    await screen.findByRole('status')
    expect(error()).toBeUndefined()
    await type(screen.getByLabelText('Port'), '25')
    expect(screen.queryByRole('status')).toBeNull()
  })

  test('beside simulators it says whose mailbox theirs is', async () => {
    running = { host: 'simulated', pages: 'http://127.0.0.1:1' }
    show()
    expect(await screen.findByText(/“simulated” is Wardoptic’s own mailbox/)).toBeTruthy()
  })
})

describe('people and groups', () => {
  const some = {
    people: { people: [{ id: 'isla', name: 'Isla', email: 'isla@quay.example' }], groups: [] },
    version: 1,
    changedAt: 0
  }
  const row = (name: string) => within(screen.getByDisplayValue(name).closest('li')!)

  test('nobody yet: says whose alarms are then; a name makes a person or a group', async () => {
    show()
    expect(screen.getByText(/No people yet/)).toBeTruthy()
    expect(screen.getByRole('button', { name: /Person/ })).toHaveProperty('disabled', true)
    const field = screen.getByRole('textbox', { name: 'New name' })
    await type(field, ' Ines ')
    await press(/Person/)
    expect(field).toHaveProperty('value', '')
    await type(field, 'Harbour office')
    await press(/Group/)
    expect(people().people.map(({ name }) => name)).toEqual(['Ines'])
    expect(people().groups.map(({ name, members }) => [name, members])).toEqual([
      ['Harbour office', []]
    ])
    expect(screen.queryByText(/No people yet/)).toBeNull()
  })

  test('an address that is none says so at its field, stays typed, and is not saved', async () => {
    show({ people: some })
    const field = row('Isla').getByRole('textbox', { name: /^E-mail/ })
    await type(field, 'isla at the quay{Enter}')
    expect(row('Isla').getByRole('alert').textContent).toMatch(/address/)
    expect(field).toHaveProperty('value', 'isla at the quay')
    expect(people().people[0]!.email).toBe('isla@quay.example')
    await type(field, 'office@quay.example{Enter}')
    expect(people().people[0]!.email).toBe('office@quay.example')
    expect(row('Isla').queryByRole('alert')).toBeNull()
  })

  test('an address is taken away; a name cannot be', async () => {
    show({ people: some })
    await type(row('Isla').getByRole('textbox', { name: /^E-mail/ }), '')
    await userEvent.tab()
    expect(people().people[0]).toEqual({ id: 'isla', name: 'Isla' })
    await type(row('Isla').getByRole('textbox', { name: /^Name/ }), '{Enter}')
    expect(error()).toMatch(/1 to 80/)
    expect(people().people[0]!.name).toBe('Isla')
  })

  test('who is taken out is in no group any more; one undo brings both back', async () => {
    show({
      people: {
        ...some,
        people: { ...some.people, groups: [{ id: 'office', name: 'Office', members: ['isla'] }] }
      }
    })
    const before = people()
    await press('Remove Isla')
    expect(people()).toEqual({
      people: [],
      groups: [{ id: 'office', name: 'Office', members: [] }]
    })
    act(() => document.undo())
    expect(people()).toEqual(before)
    await userEvent.click(screen.getByRole('combobox', { name: 'Members of Office' }))
    await userEvent.click((await screen.findAllByTitle('Isla')).at(-1)!)
    expect(people().groups[0]!.members).toEqual([])
    await press('Remove Office')
    expect(people()).toEqual({ people: before.people, groups: [] })
  })
})
