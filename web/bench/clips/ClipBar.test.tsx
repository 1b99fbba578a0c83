/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ClipView } from '../../../core/api.ts'
import { answerWith, type Asked } from '../../testing/answers.ts'
import { inApp } from '../../testing/inApp.tsx'
import { ClipBar, type ClipBarProps } from './ClipBar.tsx'
import type { Upload } from './upload.ts'

const START = Date.parse('2026-11-24T08:30:00Z')
const clip = (id: string, more: Partial<ClipView> = {}): ClipView =>
  ({
    id,
    name: `Clip ${id}`,
    state: 'ready',
    fps: 12.5,
    frames: 1000,
    targets: 3,
    start: START,
    ...more
  }) as ClipView

let asked: Asked[]
let refusal: { status: number; body: unknown } | null
let did: string[]
let sent: string[]

beforeEach(() => {
  refusal = null
  did = []
  sent = []
  asked = answerWith(() => refusal ?? { body: {} })
})
afterEach(cleanup)

const still: Upload = {
  sending: null,
  error: null,
  send: ({ name }) => sent.push(name),
  stop: () => did.push('stop'),
  forget: () => {}
}
const show = (more: Partial<ClipBarProps> = {}): void => {
  const clips = more.clips ?? [clip('a'), clip('b', { state: 'analysing' })]
  render(
    inApp(
      <ClipBar
        clips={clips}
        clip={clips[0] ?? null}
        timeZone="Europe/London"
        upload={still}
        onChoose={(id) => did.push(`choose ${id}`)}
        onChanged={() => did.push('changed')}
        onMake={null}
        onAll={() => did.push('all')}
        live={false}
        onLive={(on) => did.push(`live ${on}`)}
        back={false}
        onBack={(on) => did.push(`back ${on}`)}
        range={null}
        recordable={null}
        onRecorded={() => {}}
        {...more}
      />
    )
  )
}
const button = (name: string | RegExp) => screen.getByRole('button', { name })
const open = async (): Promise<HTMLElement> => {
  await userEvent.click(button('Name and start…'))
  return screen.findByLabelText('Name')
}

test('each clip says how long it is and how much was found, or that it is not ready', async () => {
  show()
  await userEvent.click(screen.getByRole('combobox', { name: 'Clip' }))
  const titles = (await screen.findAllByTitle(/^Clip/)).map((item) => item.getAttribute('title'))
  expect(titles).toContain('Clip a · 1 min 20 s · 12.5 frames/s · 3 targets')
  expect(titles).toContain('Clip b · being analysed')
  await userEvent.click((await screen.findAllByTitle(/^Clip b/)).at(-1)!)
  expect(did).toEqual(['choose b'])
})

test('without a clip one is added; a scene is offered only where there is one', async () => {
  show({ clips: [] })
  expect(screen.queryByRole('combobox')).toBeNull()
  for (const name of ['All clips…', 'Name and start…', /Make clip/])
    expect(screen.queryByRole('button', { name })).toBeNull()
  await userEvent.upload(screen.getByLabelText('Clip file'), new File(['x'], 'gate.mp4'))
  expect(sent).toEqual(['gate.mp4'])
  cleanup()
  show({ clips: [], onMake: () => did.push('make') })
  await userEvent.click(button(/Make clip/))
  expect(did).toEqual(['make'])
})

test('live and the past take the clip’s place, and give it back', async () => {
  show({ live: true })
  expect(button('Live').getAttribute('aria-pressed')).toBe('true')
  expect(screen.queryByRole('button', { name: 'Name and start…' })).toBeNull()
  await userEvent.click(button('Live'))
  await userEvent.click(button('Look back'))
  expect(did).toEqual(['live false', 'back true'])
})

test('a file on its way shows how far it is, and can be stopped', async () => {
  show({ upload: { ...still, sending: { name: 'gate.mp4', share: 0.4 } } })
  expect(screen.getByText(/Sending gate\.mp4/)).toBeTruthy()
  await userEvent.click(button('Stop'))
  expect(did).toEqual(['stop'])
  cleanup()
  show({ upload: { ...still, sending: { name: 'gate.mp4', share: 1 } } })
  expect(screen.getByText(/Analysing gate\.mp4/)).toBeTruthy()
})

test('a name is saved when its field is left, once; what the server refuses is said', async () => {
  show()
  const name = await open()
  fireEvent.blur(name)
  expect(asked).toEqual([])
  await userEvent.clear(name)
  await userEvent.type(name, 'Gate at dawn')
  refusal = { status: 409, body: { code: 'conflict', said: 'There is another one of that name.' } }
  fireEvent.blur(name)
  expect(await screen.findByText('There is another one of that name.')).toBeTruthy()
  expect([did, (name as HTMLInputElement).value]).toEqual([[], 'Gate at dawn'])
  refusal = null
  await userEvent.type(name, '{Enter}')
  await waitFor(() => expect(did).toEqual(['changed']))
  expect(asked.at(-1)).toEqual({
    method: 'PATCH',
    path: '/clips/a',
    body: { name: 'Gate at dawn', start: START }
  })
  expect(screen.queryByText('There is another one of that name.')).toBeNull()
})

test('removing says what goes with it; Cancel keeps it, and why it cannot be removed is said', async () => {
  show()
  await open()
  await userEvent.click(button(/Remove clip/))
  expect(await screen.findByText(/Deletes the clip with its targets and runs/)).toBeTruthy()
  await userEvent.click(button('Cancel'))
  expect(asked).toEqual([])
  refusal = { status: 503, body: { code: 'unavailable', said: 'The database is away.' } }
  // The question lies outside of what it was asked from, which has closed.
  await open()
  await userEvent.click(button(/Remove clip/))
  await userEvent.click((await screen.findAllByRole('button', { name: 'Remove' })).at(-1)!)
  expect(await screen.findByText('The database is away.')).toBeTruthy()
  expect([did, asked.map(({ method, path }) => [method, path])]).toEqual([
    [],
    [['DELETE', '/clips/a']]
  ])
})
