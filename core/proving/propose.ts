import { WEATHERS, type WeatherKind } from '../formats/weather.ts'
import type { Surroundings } from '../sites/surroundings.ts'
import { said, type Said } from '../messages/said.ts'
import type { Endpoint } from '../formats/actions.ts'
import type { Check, CheckEffect } from '../formats/check.ts'
import { checksOf } from '../kinds/checks.ts'
import type { Ask, Draft, Gap } from './drafts.ts'
import { silence } from './pictures.ts'
import { lightAt, momentsOf, sharedMoment } from './moments.ts'

export interface Proposals {
  checks: Check[]
  gaps: Gap[]
}

/**
 * The checks that a detection's own settings ask for: each gate on both sides of its limit, hours and arm input on both
 * sides, outputs within and outside their own hours, and what must not trigger it. What cannot be walked is listed with its reason.
 */
export function proposeChecks(ask: Ask): Proposals {
  const { drafts, gaps, main } = checksOf(ask)
  const all = main
    ? [...drafts, ...hoursOf(ask, main.draft), ...outputsOf(ask, main.draft)]
    : drafts
  const possible = all.filter(({ walk }) => canHappen(walk, ask.surroundings ?? 'outdoors'))
  return { checks: possible.flatMap((draft) => checkOf(ask, draft) ?? []), gaps }
}

/** Weather that never reaches a camera. */
const KEPT_OUT: Readonly<Record<Surroundings, readonly WeatherKind[]>> = {
  outdoors: [],
  roofed: ['rain', 'snow'],
  indoors: WEATHERS
}

/** Whether a walk can happen where the camera looks: it never snows in a waiting room, and no gull flies through. */
const canHappen = ({ weather, actors }: Draft['walk'], surroundings: Surroundings): boolean =>
  KEPT_OUT[surroundings].every((kind) => weather[kind] === 0) &&
  (surroundings !== 'indoors' || actors.every(({ kind }) => kind !== 'gull'))

function checkOf({ detection: d, site, from }: Ask, draft: Draft): Check | null {
  const at =
    draft.at === undefined ? momentsOf(d.schedule, site, from, draft.walk.seconds).armed : draft.at
  if (at === null) return null
  const set = d.armInput ? d.armInput.inverted === (draft.unset ?? false) : false
  const inputs = d.armInput
    ? { ...draft.walk.inputs, [d.armInput.input]: [{ at: 0, set }] }
    : draft.walk.inputs
  const light = draft.keepLight ? draft.walk.light : lightAt(at, site)
  return {
    id: `${d.id}.${draft.key}`,
    detection: d.id,
    name: draft.name,
    about: draft.about,
    ...(draft.side && { side: draft.side }),
    by: { how: 'walk', walk: { ...draft.walk, inputs, light }, through: draft.through ?? 'truth' },
    at,
    expect: draft.expect,
    effects: draft.effects ?? []
  }
}

/**
 * The main walk just before, just after and at the ends of the armed hours, and with the arm input
 * as it must not be.
 */
function hoursOf({ detection: d, site, from, inputName }: Ask, main: Draft): Draft[] {
  const { walk } = main
  const { beforeBegin, afterBegin, beforeEnd, afterEnd } = momentsOf(
    d.schedule,
    site,
    from,
    walk.seconds
  )
  const drafts: Draft[] = []
  const add = (key: string, name: Said, side: 'inside' | 'outside', at: number | null): void =>
    void (
      at !== null &&
      drafts.push({
        ...main,
        key,
        name,
        about: 'armed',
        side,
        at,
        expect: side === 'inside' ? main.expect : silence,
        effects: []
      })
    )
  add('armed.before', said('checkNames.beforeArmed'), 'outside', beforeBegin)
  add('armed.after-begin', said('checkNames.armedStarts'), 'inside', afterBegin)
  add('armed.before-end', said('checkNames.beforeArmedEnds'), 'inside', beforeEnd)
  add('armed.after-end', said('checkNames.afterArmed'), 'outside', afterEnd)
  if (d.armInput) {
    const name = inputName(d.armInput.input)
    drafts.push({
      ...main,
      key: 'arm-input.as-asked',
      name: said(d.armInput.inverted ? 'checkNames.inputNotSet' : 'checkNames.inputSet', name),
      about: 'armInput',
      side: 'inside',
      effects: []
    })
    drafts.push({
      ...main,
      key: 'arm-input.other',
      name: said(d.armInput.inverted ? 'checkNames.inputSet' : 'checkNames.inputNotSet', name),
      about: 'armInput',
      side: 'outside',
      unset: true,
      expect: silence,
      effects: []
    })
  }
  return drafts
}

const effectOf = (endpoint: Endpoint, acts: boolean): CheckEffect => ({
  endpoint: endpoint.id,
  acts,
  ...(acts &&
    'recipients' in endpoint &&
    endpoint.before + endpoint.after > 0 && { pictures: endpoint.before + endpoint.after }),
  ...(acts && 'beforeSeconds' in endpoint && { beforeSeconds: endpoint.beforeSeconds })
})

/**
 * The main walk, looking at what follows: all that acts at any hour, and each of the others within
 * and outside its hours.
 */
function outputsOf({ detection: d, actions, endpoints, site, from }: Ask, main: Draft): Draft[] {
  const linked = actions.links.flatMap((id) => endpoints.find((e) => e.id === id) ?? [])
  const always = linked.filter((e) => e.schedule === undefined)
  const drafts: Draft[] = always.length
    ? [
        {
          ...main,
          key: 'outputs',
          name: said(
            'checkNames.outputs',
            always.map(({ name }) => name)
          ),
          about: 'outputs',
          side: 'inside',
          effects: always.map((e) => effectOf(e, true))
        }
      ]
    : []
  for (const endpoint of linked) {
    if (endpoint.schedule === undefined) continue
    const at = (acts: boolean): number | null =>
      sharedMoment(d.schedule, endpoint.schedule!, acts, site, from, main.walk.seconds)
    const [inside, outside] = [at(true), at(false)]
    if (inside !== null)
      drafts.push({
        ...main,
        key: `outputs.${endpoint.id}.within`,
        name: said('checkNames.outputOn', endpoint.name),
        about: 'outputs',
        side: 'inside',
        at: inside,
        effects: [effectOf(endpoint, true)]
      })
    if (outside !== null)
      drafts.push({
        ...main,
        key: `outputs.${endpoint.id}.outside`,
        name: said('checkNames.outputOff', endpoint.name),
        about: 'outputs',
        side: 'outside',
        at: outside,
        effects: [effectOf(endpoint, false)]
      })
  }
  return drafts
}
