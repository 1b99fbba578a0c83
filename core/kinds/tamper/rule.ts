import { said } from '../../messages/said.ts'
import { duration } from '../../formats/onvif/durations.ts'
import type { RuleOf } from '../rule.ts'
import { TAMPER_CAUSES, type TamperDetection } from './schema.ts'

/** Tamper as the standard's tamper detector. */
export const tamperRule: RuleOf<TamperDetection> = {
  type: 'tt:TamperDetector',
  blank: {},
  write: (d, to) => {
    to.number('DelayTime', 'delay', d.delaySeconds, 'seconds', duration)
    if (d.causes.length < TAMPER_CAUSES.length || to.takes('Causes'))
      to.item(
        'Causes',
        'causes',
        d.causes.join(' '),
        said(
          'values.list',
          d.causes.map((c) => said(`causes.${c}`))
        ),
        said('values.everyCause')
      )
    return []
  },
  read: (_, { simple, seconds }) => {
    const causes = TAMPER_CAUSES.filter((cause) => simple.Causes?.split(/\s+/).includes(cause))
    return { ...seconds('DelayTime', 'delaySeconds'), ...(causes.length && { causes }) }
  }
}
