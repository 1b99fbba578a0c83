import { newCheck as msg } from '../../core/messages/en/prove/prove.ts'
import { CALM } from '../../core/formats/weather.ts'
import type { Check } from '../../core/formats/check.ts'
import type { Detection } from '../../core/formats/plan.ts'
import { newId } from '../sync/newId.ts'

/** A check to begin with: somebody who walks across the middle of the scene; without one, a person on site. */
export function newCheck(
  detection: Detection,
  scene: { painted: boolean } | null,
  taken: readonly string[]
): Check {
  let id = `${detection.id}.${newId('own')}`
  while (taken.includes(id)) id = `${detection.id}.${newId('own')}`
  const at = Math.floor(Date.now() / 60_000) * 60_000
  if (!scene)
    return {
      id,
      detection: detection.id,
      name: msg.walkOnSite,
      about: 'passes',
      side: 'inside',
      by: { how: 'person', words: msg.walkAsSomeoneWho, seconds: 60 },
      at,
      expect: { what: 'trigger', from: 0, to: 60 },
      effects: []
    }
  return {
    id,
    detection: detection.id,
    name: msg.customWalk,
    about: 'passes',
    side: 'inside',
    by: {
      how: 'walk',
      walk: {
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
      },
      through: 'truth'
    },
    at,
    expect: { what: 'trigger', from: 0, to: 12 },
    effects: []
  }
}
