import type { FrameDetection, TamperCause } from '../formats/plan.ts'
import { TAMPER_CAUSES } from '../formats/plan.ts'
import type { FaultKind, Walk, WalkActor } from '../formats/walk.ts'
import { USUAL_ACTORS } from '../formats/walk.ts'
import type { Ask, Draft, Found, Gap, Main } from './drafts.ts'
import { actor, groundOf, plainWalk, secondsOf, type Way } from './stage.ts'

const silence = { what: 'silence' } as const
/** A picture is learned before anything happens. */
const LEARN = 3

/** The fault that makes a cause, and the other way around (simulation/script). */
const faultOf: Record<TamperCause, FaultKind> = {
  covered: 'covered',
  dark: 'lightsOut',
  washedOut: 'washedOut',
  outOfFocus: 'defocused',
  moved: 'knocked'
}
const causeWords: Record<TamperCause, string> = {
  covered: 'Lens covered',
  dark: 'Lights out',
  washedOut: 'Dazzled',
  outOfFocus: 'Out of focus',
  moved: 'Knocked aside'
}

/** Checks of what looks at whole pictures, or at a contact. */
export function proposeForFrames(ask: Ask, d: FrameDetection): Found {
  if (d.kind === 'contact') return contact(d)
  if (!ask.painted)
    return {
      drafts: [],
      gaps: [
        {
          about: d.kind === 'tamper' ? 'cause' : d.kind === 'signalLoss' ? 'delay' : 'cells',
          side: 'inside',
          words:
            'Nothing can be painted for this camera: it has no simulated scene. Use a clip, or a person on site.'
        }
      ],
      main: null
    }
  if (d.kind === 'tamper') return tamper(d)
  if (d.kind === 'signalLoss') return signalLoss(d)
  return motion(ask, d)
}

const within = (from: number, to: number): Draft['expect'] => ({
  what: 'trigger',
  from: Math.max(0, from - 0.5),
  to,
  times: 1
})
const mainOf = (draft: Draft | undefined): Main | null => (draft ? { draft } : null)

function contact(d: Extract<FrameDetection, { kind: 'contact' }>): Found {
  const active = d.normally === 'open'
  const pulse = (long: number): Walk => ({
    ...plainWalk(Math.ceil(3 + long + d.debounceSeconds + 2), []),
    inputs: {
      [d.input]: [
        { at: 0, set: !active },
        { at: 2, set: active },
        { at: 2 + long, set: !active }
      ]
    }
  })
  const long = d.debounceSeconds + 1.5
  const drafts: Draft[] = [
    {
      key: 'contact.active',
      name: 'The contact becomes active',
      about: 'contact',
      side: 'inside',
      walk: pulse(long),
      expect: within(2, 2 + d.debounceSeconds + 1)
    },
    {
      key: 'contact.at-rest',
      name: 'The contact stays at rest',
      about: 'contact',
      side: 'outside',
      walk: { ...plainWalk(6, []), inputs: { [d.input]: [{ at: 0, set: !active }] } },
      expect: silence
    },
    {
      key: 'delay.longer',
      name: `Active for ${long.toFixed(1)} s`,
      about: 'delay',
      side: 'inside',
      walk: pulse(long),
      expect: within(2, 2 + d.debounceSeconds + 1)
    }
  ]
  const gap = 2 * d.debounceSeconds + 3
  const twice = { ...pulse(long), seconds: Math.ceil(4 + 2 * long + gap + d.debounceSeconds) }
  drafts.push({
    key: 'contact.twice',
    name: 'Active twice: two triggers',
    about: 'contact',
    side: 'inside',
    walk: {
      ...twice,
      inputs: {
        [d.input]: [
          ...twice.inputs[d.input],
          { at: 2 + long + gap, set: active },
          { at: 2 + 2 * long + gap, set: !active }
        ]
      }
    },
    expect: { what: 'trigger', from: 1.5, to: twice.seconds, times: d.holdOffSeconds > gap ? 1 : 2 }
  })
  // Frames come ten a second: what is shorter than two of them is not seen.
  if (d.debounceSeconds >= 0.4)
    drafts.push({
      key: 'delay.shorter',
      name: `Active for ${(d.debounceSeconds * 0.5).toFixed(1)} s only`,
      about: 'delay',
      side: 'outside',
      walk: pulse(d.debounceSeconds * 0.5),
      expect: silence
    })
  return {
    drafts,
    gaps:
      d.debounceSeconds >= 0.4
        ? []
        : [
            {
              about: 'delay',
              side: 'outside',
              words: `The debounce time of ${d.debounceSeconds} s is shorter than what can be told apart at ten frames a second.`
            }
          ],
    main: mainOf(drafts[0])
  }
}

function tamper(d: Extract<FrameDetection, { kind: 'tamper' }>): Found {
  const long = Math.min(60, d.delaySeconds + 2.5)
  const faulty = (kind: FaultKind, seconds: number): Walk => ({
    ...plainWalk(Math.ceil(LEARN + seconds + 1), []),
    faults: [{ kind, from: LEARN, to: LEARN + seconds }]
  })
  const drafts: Draft[] = TAMPER_CAUSES.map((cause): Draft => {
    const counts = d.causes.includes(cause)
    return {
      key: `cause.${cause}`,
      name: `${causeWords[cause]}${counts ? '' : ': does not count'}`,
      about: 'cause',
      side: counts ? 'inside' : 'outside',
      walk: faulty(faultOf[cause], long),
      expect: counts
        ? ({ ...within(LEARN, LEARN + d.delaySeconds + 3), cause } as Draft['expect'])
        : silence
    }
  })
  const first = faultOf[d.causes[0]]
  const gaps: Gap[] = []
  if (d.delaySeconds >= 1) {
    drafts.push({
      key: 'delay.shorter',
      name: `${causeWords[d.causes[0]]} for ${(d.delaySeconds * 0.6).toFixed(1)} s only`,
      about: 'delay',
      side: 'outside',
      walk: faulty(first, d.delaySeconds * 0.6),
      expect: silence
    })
    drafts.push({
      key: 'delay.longer',
      name: `${causeWords[d.causes[0]]} for ${long.toFixed(1)} s`,
      about: 'delay',
      side: 'inside',
      walk: faulty(first, long),
      expect: within(LEARN, LEARN + d.delaySeconds + 3)
    })
  } else
    gaps.push({
      about: 'delay',
      side: 'outside',
      words: 'Without a delay there is nothing shorter.'
    })
  drafts.push({
    key: 'nuisance.headlights',
    name: 'Headlights sweep over the picture',
    about: 'nuisance',
    side: 'outside',
    walk: { ...plainWalk(LEARN + 6, []), light: 'night', headlights: [{ from: LEARN, takes: 4 }] },
    keepLight: true,
    expect: silence
  })
  drafts.push({
    key: 'nuisance.storm',
    name: 'Wind and rain',
    about: 'nuisance',
    side: 'outside',
    walk: storm(9),
    expect: silence
  })
  drafts.push({
    key: 'nuisance.snow',
    name: 'Snow falls',
    about: 'nuisance',
    side: 'outside',
    walk: snow(9),
    expect: silence
  })
  return { drafts, gaps, main: mainOf(drafts.find((x) => x.side === 'inside')) }
}

function signalLoss(d: Extract<FrameDetection, { kind: 'signalLoss' }>): Found {
  const cut = (kind: FaultKind, seconds: number): Walk => ({
    ...plainWalk(Math.ceil(3 + seconds + 1), []),
    faults: [{ kind, from: 2, to: 2 + seconds }]
  })
  const long = d.delaySeconds + 2
  const drafts: Draft[] = [
    {
      key: 'delay.longer',
      name: `Cable out for ${long.toFixed(1)} s`,
      about: 'delay',
      side: 'inside',
      walk: cut('cableCut', long),
      expect: within(2 + d.delaySeconds - 0.2, 2 + d.delaySeconds + 1)
    },
    {
      key: 'delay.shorter',
      name: `Cable out for ${(d.delaySeconds * 0.7).toFixed(1)} s only`,
      about: 'delay',
      side: 'outside',
      walk: cut('cableCut', d.delaySeconds * 0.7),
      expect: silence
    },
    {
      key: 'frozen',
      name: 'The picture stands still',
      about: 'delay',
      side: 'inside',
      walk: cut('frozen', long),
      expect: within(2 + d.delaySeconds - 0.2, 2 + d.delaySeconds + 1)
    },
    {
      key: 'frozen.shorter',
      name: `The picture stands still for ${(d.delaySeconds * 0.7).toFixed(1)} s only`,
      about: 'delay',
      side: 'outside',
      walk: cut('frozen', d.delaySeconds * 0.7),
      expect: silence
    },
    {
      key: 'nuisance.dark',
      name: 'The lights go out, the picture stays',
      about: 'nuisance',
      side: 'outside',
      walk: {
        ...plainWalk(Math.ceil(4 + d.delaySeconds), []),
        faults: [{ kind: 'lightsOut', from: 2 }]
      },
      expect: silence
    }
  ]
  return { drafts, gaps: [], main: mainOf(drafts[0]) }
}

const weather = (change: Partial<Walk['weather']>): Walk['weather'] => ({
  wind: 0,
  rain: 0,
  snow: 0,
  fog: 0,
  clouds: 0,
  ...change
})
const snow = (seconds: number): Walk => ({
  ...plainWalk(seconds, []),
  weather: weather({ snow: 0.7, clouds: 0.5 })
})
export const storm = (seconds: number, actors: WalkActor[] = []): Walk => ({
  ...plainWalk(seconds, actors),
  weather: weather({ wind: 0.8, rain: 0.8, clouds: 0.6 })
})

function motion(
  { stage }: Ask,
  d: Extract<FrameDetection, { kind: 'motion' | 'classMotion' }>
): Found {
  const counted = d.kind === 'classMotion' ? d.classes : []
  // Motion alone is asked for at the nearest place; who is to be recognised must be seen from head to foot.
  const way = stage ? acrossCells(stage.pose, d.cells, d.kind === 'motion' ? 0.025 : 0.125) : null
  const drafts: Draft[] = []
  const gaps: Gap[] = []
  const sample = (kind: WalkActor['kind'], speed: number): Walk | null =>
    way &&
    plainWalk(Math.ceil(4 + secondsOf(way, speed) + 1), [actor(kind, way, { from: 4, speed })])
  const person = sample('adult', USUAL_ACTORS.adult.speed)
  const bySomebody = (walk: Walk): Draft['expect'] => ({
    what: 'trigger',
    from: 3.5,
    to: walk.seconds
  })
  const personCounts = !counted.length || counted.includes('person')
  if (person) {
    drafts.push({
      key: 'cells.person',
      name: personCounts
        ? 'Somebody walks through the cells'
        : 'Somebody walks through: does not count',
      about: 'cells',
      side: personCounts ? 'inside' : 'outside',
      walk: person,
      expect: personCounts ? bySomebody(person) : silence
    })
    drafts.push({
      key: 'night',
      name: 'The same at night',
      about: 'passes',
      side: 'inside',
      walk: { ...person, light: 'infrared' },
      keepLight: true,
      expect: personCounts ? bySomebody(person) : silence
    })
  } else
    gaps.push({
      about: 'cells',
      side: 'inside',
      words: 'No ground that can be walked on is seen in the selected cells.'
    })
  drafts.push({
    key: 'cells.nobody',
    name: 'Nobody is there',
    about: 'cells',
    side: 'outside',
    walk: plainWalk(8, []),
    expect: silence
  })
  drafts.push({
    key: 'nuisance.storm',
    name: 'Wind and rain, nobody there',
    about: 'nuisance',
    side: 'outside',
    walk: storm(9),
    expect: silence
  })
  drafts.push({
    key: 'nuisance.snow',
    name: 'Snow falls, nobody there',
    about: 'nuisance',
    side: 'outside',
    walk: snow(9),
    expect: silence
  })
  drafts.push({
    key: 'nuisance.headlights',
    name: 'Headlights sweep over the picture',
    about: 'nuisance',
    side: 'outside',
    walk: { ...plainWalk(9, []), light: 'night', headlights: [{ from: 3, takes: 4 }] },
    keepLight: true,
    expect: silence
  })
  if (d.kind === 'classMotion') {
    const dog = sample('dog', USUAL_ACTORS.dog.speed)
    if (dog && counted.length && !counted.includes('animal'))
      drafts.push({
        key: 'class.animal',
        name: 'A dog: does not count',
        about: 'class',
        side: 'outside',
        walk: dog,
        expect: silence
      })
    if (person && counted.includes('person'))
      drafts.push({
        key: 'class.person',
        name: 'A person counts',
        about: 'class',
        side: 'inside',
        walk: person,
        expect: bySomebody(person)
      })
  }
  return {
    drafts,
    gaps,
    main: mainOf(drafts.find((x) => x.side === 'inside' && x.about === 'cells'))
  }
}

/** A way through selected cells, four metres to both sides, on ground that is nearer than all but a share of them. */
function acrossCells(
  pose: Parameters<typeof groundOf>[0],
  cells: readonly string[],
  share: number
): Way | null {
  const places: [number, number][] = cells.flatMap((row, j) =>
    [...row].flatMap((c, i): [number, number][] =>
      c === '1' ? [[(i + 0.5) / row.length, (j + 0.5) / cells.length]] : []
    )
  )
  const grounds = places
    .flatMap(([x, y]) => {
      const at = groundOf(pose, x, y)
      return at && at[1] < 25 ? [at] : []
    })
    .sort((a, b) => a[1] - b[1])
  const middle = grounds.at(Math.floor(grounds.length * share))
  if (!middle) return null
  const z = Math.round(Math.max(middle[1], 4) * 10) / 10
  return [
    [middle[0] - 4, z],
    [middle[0] + 4, z]
  ]
}
