import type { EndpointOf } from '../../../core/formats/actions.ts'
import { TextField } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

export const webhook: EndpointFace<EndpointOf<'webhook'>> = {
  name: 'Webhook',
  glyph: '↗',
  group: 'Messages',
  Fields: ({ endpoint: e, keep }) => {
    return (
      <TextField
        key={`url ${e.url}`}
        label="Address"
        value={e.url}
        help="The alarm is posted there as JSON, with an Idempotency-Key"
        onKeep={(url) => keep({ url })}
      />
    )
  },
  start: (simulators) => ({
    url: simulators ? `http://${simulators.host}/hooks` : 'https://example.org/alarms'
  }),
  test: 'Test it',
  simulated: '/hooks'
}
