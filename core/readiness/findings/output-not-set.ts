import { perEndpoint } from '../facts.ts'

export const outputNotSet = perEndpoint('output-not-set', ({ endpoint, missing }) =>
  missing
    ? [
        {
          severity: 'blocking',
          sentence: `${endpoint.name} does nothing when it is set off: ${missing}.`,
          fix: { does: 'go', words: 'Set it up', to: `/actions?endpoint=${endpoint.id}` }
        }
      ]
    : []
)
