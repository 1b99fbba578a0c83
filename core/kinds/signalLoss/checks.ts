import { said } from '../../messages/said.ts'
import type { FaultKind, Walk } from '../../formats/walk.ts'
import type { Ask, Draft, Found } from '../../proving/drafts.ts'
import { mainOf, silence, unpaintable, within } from '../../proving/pictures.ts'
import { plainWalk } from '../../proving/stage.ts'
import type { SignalLossDetection } from './schema.ts'

/** A picture that is gone, or stands still, longer and shorter than the delay. */
export function signalLossChecks(ask: Ask, d: SignalLossDetection): Found {
  if (!ask.painted) return unpaintable('delay')
  const cut = (kind: FaultKind, seconds: number): Walk => ({
    ...plainWalk(Math.ceil(3 + seconds + 1), []),
    faults: [{ kind, from: 2, to: 2 + seconds }]
  })
  const long = d.delaySeconds + 2
  const drafts: Draft[] = [
    {
      key: 'delay.longer',
      name: said('checkNames.cableCut', long),
      about: 'delay',
      side: 'inside',
      walk: cut('cableCut', long),
      expect: within(2 + d.delaySeconds - 0.2, 2 + d.delaySeconds + 1)
    },
    {
      key: 'delay.shorter',
      name: said('checkNames.cableCutShort', d.delaySeconds * 0.7),
      about: 'delay',
      side: 'outside',
      walk: cut('cableCut', d.delaySeconds * 0.7),
      expect: silence
    },
    {
      key: 'frozen',
      name: said('checkNames.frozen'),
      about: 'delay',
      side: 'inside',
      walk: cut('frozen', long),
      expect: within(2 + d.delaySeconds - 0.2, 2 + d.delaySeconds + 1)
    },
    {
      key: 'frozen.shorter',
      name: said('checkNames.frozenShort', d.delaySeconds * 0.7),
      about: 'delay',
      side: 'outside',
      walk: cut('frozen', d.delaySeconds * 0.7),
      expect: silence
    },
    {
      key: 'nuisance.dark',
      name: said('checkNames.lightsOut'),
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
