import { common } from '../../../core/messages/en/common.ts'
import { webhook as msg } from '../../../core/messages/en/actions/kinds.ts'
import { ApiOutlined } from '@ant-design/icons'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { TextField } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

export const webhook: EndpointFace<EndpointOf<'webhook'>> = {
  name: msg.webhook,
  icon: <ApiOutlined aria-hidden />,
  group: 'messages',
  Fields: ({ endpoint: e, keep }) => {
    return (
      <TextField
        key={`url ${e.url}`}
        label={common.address}
        value={e.url}
        help={msg.alarmsArePostedHere}
        onKeep={(url) => keep({ url })}
      />
    )
  },
  start: (simulators) => ({
    url: simulators ? `http://${simulators.host}/hooks` : 'https://example.org/alarms'
  }),
  test: common.testIt,
  simulated: '/hooks'
}
