import { said } from '../../messages/said.ts'
import type { Walk } from '../../formats/walk.ts'
import type { Draft, Found } from '../../proving/drafts.ts'
import { mainOf, silence, within } from '../../proving/pictures.ts'
import { plainWalk } from '../../proving/stage.ts'
import type { ContactDetection } from './schema.ts'

/** The contact active and at rest, longer and shorter than the debounce time. */
export function contactChecks(d: ContactDetection): Found {
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
      name: said('checkNames.contactActive'),
      about: 'contact',
      side: 'inside',
      walk: pulse(long),
      expect: within(2, 2 + d.debounceSeconds + 1)
    },
    {
      key: 'contact.at-rest',
      name: said('checkNames.contactAtRest'),
      about: 'contact',
      side: 'outside',
      walk: { ...plainWalk(6, []), inputs: { [d.input]: [{ at: 0, set: !active }] } },
      expect: silence
    },
    {
      key: 'delay.longer',
      name: said('checkNames.activeFor', long),
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
    name: said('checkNames.activeTwice'),
    about: 'contact',
    side: 'inside',
    walk: {
      ...twice,
      inputs: {
        [d.input]: [
          ...twice.inputs[d.input]!,
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
      name: said('checkNames.activeShort', d.debounceSeconds * 0.5),
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
              words: said('checkGaps.debounceTooShort', d.debounceSeconds)
            }
          ],
    main: mainOf(drafts[0])
  }
}
