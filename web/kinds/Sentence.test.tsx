/** @jest-environment ./scripts/jestBrowser.mjs */
import { afterEach, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useSyncExternalStore, type ReactNode } from 'react'
import type { SiteInput } from '../../core/api.ts'
import { DETECTION_KINDS, DetectionSchema, type Detection } from '../../core/formats/plan.ts'
import { hasField } from '../../core/kinds/schemas.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { BenchDocument } from '../bench/document.ts'
import { answerWith } from '../testing/answers.ts'
import { bareView } from '../testing/bareView.ts'
import { loadEditors } from './chipEditors.ts'
import { kindNames, sentenceOf } from '../../core/kinds/names.ts'
import { newDetection, newDrawn, type UndrawnKind } from './newDetection.ts'
import { Sentence } from './Sentence.tsx'
import { ZONE_KINDS } from './zones.ts'

const inputs: SiteInput[] = [{ id: 'door', name: 'Back door' }]
const view = bareView(inputs)

/** A new detection of each kind, as the Bench makes it. */
const made = (kind: Detection['kind']): Detection =>
  hasField(kind, 'line')
    ? newDrawn('line', [[0.1, 0.5], [0.9, 0.5]], []) // prettier-ignore
    : hasField(kind, 'zone')
      ? newDrawn(kind as 'entry', [[0.1, 0.1], [0.9, 0.1], [0.9, 0.9]], []) // prettier-ignore
      : newDetection(kind as UndrawnKind, [], inputs)

let document: BenchDocument
function Shown({ id }: { id: string }): ReactNode {
  useSyncExternalStore(document.subscribe, document.getState)
  const detection = document.detection(id)
  return detection ? (
    <Sentence
      document={document}
      detection={detection}
      schedules={[]}
      inputs={inputs}
      endpoints={[]}
      links={[]}
      users={() => 1}
      stays={null}
      sizes={null}
      measured={false}
    />
  ) : null
}
const show = (detection: Detection): void => {
  document.add([detection])
  render(<Shown id={detection.id} />)
}
const chip = (what: string): HTMLElement =>
  screen.getByRole('button', { name: new RegExp(`^${what}: `) })
const now = (id: string): Detection => document.detection(id)!

beforeAll(loadEditors)
beforeEach(() => {
  answerWith(() => ({ body: { version: 1 } }))
  document = new BenchDocument(view)
})
afterEach(cleanup)

describe('a detection as a sentence', () => {
  test.each(DETECTION_KINDS)('%s: each part has a name and opens an editor', async (kind) => {
    const detection = made(kind)
    show(detection)
    const chips = screen.getAllByRole('button', { name: /^[A-Z][\w -]+: / })
    const whatOf = (one: HTMLElement): string => one.getAttribute('aria-label')!.split(':')[0]!
    const shared = ['Name', 'Actions']
    expect(chips.map(whatOf)).toEqual(expect.arrayContaining(shared))
    const own = chips.filter((one) => !shared.includes(whatOf(one)))[0] ?? chips[0]!
    await userEvent.click(own)
    const title = (await screen.findByRole('tooltip')).querySelector('.ant-popover-title')
    expect(title?.textContent).toBe(whatOf(own))
    expect(now(detection.id)).toEqual(detection)
  })

  test.each(DETECTION_KINDS)('%s: the page and the record say the same', (kind) => {
    // Every condition set that the kind has.
    const detection = parseWith(DetectionSchema, {
      ...made(kind),
      ...('classes' in made(kind) && {
        classes: ['person'],
        confirmSeconds: 0.5,
        size: { min: { w: 0.02, h: 0.1 } }
      }),
      ...('atLeast' in made(kind) && { atLeast: 2, dwellSeconds: 4 }),
      ...('mask' in made(kind) && { mask: 'without', list: 'listed', faces: ['Ada'] }),
      holdOffSeconds: 7,
      schedule: 'nights'
    })
    show(detection)
    const shown = globalThis.document.querySelector('.sentence')!.textContent
    expect(shown.slice(0, shown.indexOf(' No actions'))).toBe(sentenceOf(detection, [], inputs))
  })

  test('every setting of a kind can be reached: as a part, an added condition, or on the picture', async () => {
    // What is set elsewhere: by drawing, in the rail, under the arming hours, or beside the parts.
    const elsewhere = ['id', 'kind', 'enabled', 'parked', 'armInput', 'line', 'zone', 'cells']
    const parts: Record<string, string> = {
      name: 'Name', schedule: 'Arming schedule', holdOffSeconds: 'Re-trigger delay', classes: 'Classes',
      confirmSeconds: 'Confirmation time', size: 'Size limits', direction: 'Direction and sides',
      sides: 'Direction and sides', dwellSeconds: 'Dwell', countFirstSeenInside: 'Dwell',
      graceSeconds: 'Grace time', atLeast: 'Number together', threshold: 'Share of the cells',
      onDelaySeconds: 'Delays', offDelaySeconds: 'Delays', causes: 'Causes', severity: 'Severity',
      delaySeconds: 'Delay', input: 'Contact', normally: 'Contact', debounceSeconds: 'Contact',
      faceMin: 'Smallest face', mask: 'Mask', list: 'Face list', faces: 'Face list'
    } // prettier-ignore
    for (const kind of DETECTION_KINDS) {
      show(made(kind))
      const shown = screen
        .getAllByRole('button')
        .map((b) => b.getAttribute('aria-label')?.split(':')[0])
      const add = screen.queryByRole('button', { name: /Add condition/ })
      if (add) {
        await userEvent.click(add)
        shown.push(...(await screen.findAllByRole('menuitem')).map((item) => item.textContent))
      }
      const fields = DetectionSchema.options.find((o) => o.entries.kind.literal === kind)!.entries
      for (const field of Object.keys(fields).filter((f) => !elsewhere.includes(f))) {
        const part =
          field === 'sensitivity'
            ? hasField(kind, 'line') || hasField(kind, 'zone')
              ? 'Overlap'
              : 'Sensitivity'
            : parts[field]
        expect([kind, field, shown.includes(part)]).toEqual([kind, field, true])
      }
      cleanup()
    }
  })

  test('changes a zone to each other kind; keeps the editor and shared settings', async () => {
    const zone = parseWith(DetectionSchema, { ...made('intrusion'), sensitivity: 70 })
    show(zone)
    await userEvent.click(chip('What counts'))
    for (const kind of [...ZONE_KINDS.slice(1), ZONE_KINDS[0]!]) {
      await userEvent.click(
        await screen.findByRole('radio', { name: new RegExp(`^${kindNames[kind]}: `) })
      )
      expect(now(zone.id)).toMatchObject({ kind, sensitivity: 70, name: zone.name })
      expect(chip('Overlap').textContent).toBe('30% of the body')
    }
    document.undo()
    expect(now(zone.id).kind).toBe(ZONE_KINDS.at(-1))
  })

  test('a class is chosen; a name that is too long says why and is not saved', async () => {
    const line = made('line')
    show(line)
    await userEvent.click(chip('Classes'))
    await userEvent.click(await screen.findByRole('checkbox', { name: 'vehicle' }))
    expect(now(line.id)).toMatchObject({ classes: ['person', 'vehicle'] })
    expect(chip('Classes').textContent).toBe('A person or vehicle')
    await userEvent.keyboard('{Escape}')
    await userEvent.click(chip('Name'))
    const name = await screen.findByRole('textbox', { name: 'Name' })
    await userEvent.clear(name)
    await userEvent.type(name, 'x'.repeat(81))
    await userEvent.keyboard('{Enter}')
    expect((await screen.findByRole('alert')).textContent).toBe(
      'Name is 81 characters long; at most 80 are allowed.'
    )
    expect(now(line.id).name).toBe(line.name)
  })

  test('by keyboard: opens a part, and Escape returns to it', async () => {
    show(made('line'))
    const direction = chip('Direction and sides')
    direction.focus()
    await userEvent.keyboard('{Enter}')
    expect(direction.getAttribute('aria-expanded')).toBe('true')
    await userEvent.keyboard('{Escape}')
    expect(direction.getAttribute('aria-expanded')).toBe('false')
    expect(globalThis.document.activeElement).toBe(direction)
  })
})
