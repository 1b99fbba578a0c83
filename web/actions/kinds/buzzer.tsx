import { common, units } from '../../../core/messages/en/common.ts'
import { buzzer as msg } from '../../../core/messages/en/actions/kinds.ts'
import { BellOutlined } from '@ant-design/icons'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { NumberField } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

export const buzzer: EndpointFace<EndpointOf<'buzzer'>> = {
  name: msg.buzzer,
  icon: <BellOutlined aria-hidden />,
  group: 'outputs',
  Fields: ({ endpoint: e, keep }) => {
    return (
      <NumberField
        label={msg.soundsFor}
        unit={units.s}
        value={e.seconds}
        help={msg.n1To60S}
        onKeep={(seconds) => keep({ seconds })}
      />
    )
  },
  start: () => ({ seconds: 10 }),
  test: common.testIt,
  simulated: '/outputs'
}
