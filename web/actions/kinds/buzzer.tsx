import { common } from '../../../core/messages/en/common.ts'
import { buzzer as msg } from '../../../core/messages/en/actions/kinds.ts'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { NumberField } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

export const buzzer: EndpointFace<EndpointOf<'buzzer'>> = {
  name: msg.buzzer,
  glyph: '♪',
  group: 'outputs',
  Fields: ({ endpoint: e, keep }) => {
    return (
      <NumberField
        label={msg.soundsFor}
        unit="s"
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
