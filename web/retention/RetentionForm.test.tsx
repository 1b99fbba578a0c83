/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, expect, test } from '@jest/globals'
import { cleanup, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { DEFAULT_RETENTION, type RetentionView } from '../../core/retention.ts'
import { answerWith, type Asked } from '../testing/answers.ts'
import { inApp } from '../testing/inApp.tsx'
import { RetentionForm } from './RetentionForm.tsx'

afterEach(cleanup)

const view: RetentionView = {
  retention: DEFAULT_RETENTION,
  version: 3,
  changedAt: 0,
  now: {
    events: 1,
    alarms: 1,
    triggers: 12_345,
    deliveries: 2,
    edits: 0,
    audit: 1,
    evidenceBytes: 1_540_000_000,
    freeBytes: 87_000_000
  },
  last: null
}
const show = (put: (asked: Asked) => { status?: number; body: unknown }): Asked[] => {
  const asked = answerWith((one) => (one.method === 'GET' ? { body: view } : put(one)))
  render(inApp(<RetentionForm />))
  return asked
}
const days = () => screen.findByLabelText('Device events, days')

test('shows current amounts with units', async () => {
  show(() => ({ body: view }))
  await days()
  for (const words of [
    '1 alarm, 12,345 triggers, 2 deliveries',
    '1.5 GB used, 87 MB free on the disk',
    '1 event',
    '0 edits',
    '1 entry'
  ])
    expect(screen.getByText(words)).toBeTruthy()
})

test('saves only after a change, over the version shown', async () => {
  const asked = show(({ body }) => ({
    body: { ...view, retention: body.retention, version: 4 }
  }))
  const field = await days()
  const save = screen.getByRole('button', { name: 'Save' })
  expect(save).toHaveProperty('disabled', true)
  await userEvent.clear(field)
  await userEvent.type(field, '30')
  await userEvent.click(save)
  await waitFor(() => expect(save).toHaveProperty('disabled', true))
  expect(asked.at(-1)).toEqual({
    method: 'PUT',
    path: '/api/settings/retention',
    body: { version: 3, retention: { ...DEFAULT_RETENTION, eventDays: 30 } }
  })
  expect(field).toHaveProperty('value', '30')
})

test('when refused, names the field and keeps what was typed', async () => {
  show(() => ({
    status: 400,
    body: {
      code: 'bad-request',
      path: '$.retention.eventDays',
      said: 'must be a whole number of days from 1 to 3650'
    }
  }))
  const field = await days()
  await userEvent.clear(field)
  await userEvent.type(field, '1.5')
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  expect((await screen.findByRole('alert')).textContent).toBe(
    'Device events must be a whole number of days from 1 to 3650.'
  )
  expect(field).toHaveProperty('value', '1.5')
})
