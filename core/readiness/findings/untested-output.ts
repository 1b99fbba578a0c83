import { said } from '../../messages/said.ts'
import { perEndpoint } from '../facts.ts'

export const untestedOutput = perEndpoint('untested-output', ({ endpoint, missing, tested }) => {
  // A recording is proven by a walk.
  if (missing || tested === 'passed' || 'camera' in endpoint) return []
  const fix = {
    does: 'test',
    words: said('readiness.test', endpoint.name),
    endpoint: endpoint.id
  } as const
  return [
    {
      severity: 'warning',
      sentence:
        tested === 'failed'
          ? said('readiness.testFailed', endpoint.name)
          : said('readiness.untested', endpoint.name),
      fix
    }
  ]
})
