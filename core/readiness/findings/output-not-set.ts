import { said } from '../../messages/said.ts'
import { perEndpoint } from '../facts.ts'

export const outputNotSet = perEndpoint('output-not-set', ({ endpoint, missing }) =>
  missing
    ? [
        {
          severity: 'blocking',
          sentence: said('readiness.outputNotSet', endpoint.name, missing),
          fix: {
            does: 'go',
            words: said('readiness.setUp'),
            to: `/actions?endpoint=${endpoint.id}`
          }
        }
      ]
    : []
)
