import { perEndpoint } from '../facts.ts'

export const untestedOutput = perEndpoint('untested-output', ({ endpoint, missing, tested }) => {
  // A recording is proven by a walk.
  if (missing || tested === 'passed' || 'camera' in endpoint) return []
  const fix = { does: 'test', words: 'Test it', endpoint: endpoint.id } as const
  return [
    {
      severity: 'warning',
      sentence:
        tested === 'failed'
          ? `The last test of ${endpoint.name} failed.`
          : `${endpoint.name} has never been tested as it is set up now.`,
      fix
    }
  ]
})
