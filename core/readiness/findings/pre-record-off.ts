import { perEndpoint } from '../facts.ts'

/** Common practice, no source: 5 s before. */
const BEFORE = 5

export const preRecordOff = perEndpoint('pre-record-off', ({ endpoint }) =>
  'beforeSeconds' in endpoint && endpoint.beforeSeconds === 0
    ? [
        {
          severity: 'warning',
          sentence: `${endpoint.name} begins when the trigger has fallen: how it came to that is not on it.`,
          fix: {
            does: 'endpoint',
            words: `${BEFORE} s before`,
            endpoint: { ...endpoint, beforeSeconds: BEFORE }
          }
        }
      ]
    : []
)
