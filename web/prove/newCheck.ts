import { newCheck as msg } from '../../core/messages/en/prove/prove.ts'
import { CALM } from '../../core/formats/weather.ts'
import type { Check } from '../../core/formats/check.ts'
import type { ClipView } from '../../core/api.ts'
import type { Walk } from '../../core/formats/walk.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { newId } from '../sync/newId.ts'

/** A clip that a check can be of. */
export type CheckClip = Pick<ClipView, 'id' | 'name' | 'start' | 'frames' | 'fps'>

export const lengthOfClip = ({ frames, fps }: CheckClip): number =>
  Math.max(1, Math.floor(frames / fps))

export type How = Check['by']['how']

/** How it is made to happen, to begin with: a walk across the scene, a whole clip, or a person on site. */
export function startWith(how: How, clip: CheckClip | null): Check['by'] {
  if (how === 'clip' && clip) return { how, clip: clip.id, from: 0, to: lengthOfClip(clip) }
  if (how === 'walk') return { how, walk: walkAcross, through: 'truth' }
  return { how: 'person', words: msg.walkAsSomeoneWho, seconds: 60 }
}

/** How long a check takes, seconds. While a stretch is typed it may end before it starts: none then. */
export const lengthOfCheck = ({ by }: Pick<Check, 'by'>): number =>
  by.how === 'walk'
    ? by.walk.seconds
    : by.how === 'person'
      ? by.seconds
      : Math.max(0, by.to - by.from)

const walkAcross: Walk = {
  seconds: 12,
  light: 'day',
  weather: CALM,
  headlights: [],
  insects: [],
  faults: [],
  actors: [
    {
      kind: 'adult',
      from: 0,
      members: 3,
      mask: false,
      way: [
        [-4, 12],
        [4, 12]
      ]
    }
  ],
  inputs: {},
  seed: 1
}

/** A check to begin with: a walk where there is a scene, else a clip, else a person on site. */
export function newCheck(
  detection: Detection,
  scene: { painted: boolean } | null,
  clip: CheckClip | null,
  taken: readonly string[]
): Check {
  let id = `${detection.id}.${newId('own')}`
  while (taken.includes(id)) id = `${detection.id}.${newId('own')}`
  const by = startWith(scene ? 'walk' : clip ? 'clip' : 'person', clip)
  return {
    id,
    detection: detection.id,
    name: by.how === 'walk' ? msg.customWalk : by.how === 'clip' ? clip!.name : msg.walkOnSite,
    about: 'passes',
    side: 'inside',
    by,
    at: by.how === 'clip' ? clip!.start : Math.floor(Date.now() / 60_000) * 60_000,
    expect: { what: 'trigger', from: 0, to: lengthOfCheck({ by }) },
    effects: []
  }
}
