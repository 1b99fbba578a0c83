import { said } from '../../messages/said.ts'
import { perEndpoint } from '../facts.ts'

/** Common practice, no source: 5 s before. */
const BEFORE = 5

export const preRecordOff = perEndpoint('pre-record-off', ({ endpoint }) =>
  'beforeSeconds' in endpoint && endpoint.beforeSeconds === 0
    ? [
        {
          severity: 'warning',
          sentence: said('readiness.preRecordOff', endpoint.name),
          fix: {
            does: 'endpoint',
            words: said('readiness.recordBefore', BEFORE),
            endpoint: { ...endpoint, beforeSeconds: BEFORE }
          }
        }
      ]
    : []
)
