import { common, units } from '../../../core/messages/en/common.ts'
import { strobe as msg } from '../../../core/messages/en/actions/kinds.ts'
import { BulbOutlined } from '@ant-design/icons'
import { Radio } from 'antd'
import { STROBE_PATTERNS, type EndpointOf } from '../../../core/formats/actions.ts'
import { Field, NumberField } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

export const strobe: EndpointFace<EndpointOf<'strobe'>> = {
  name: msg.strobe,
  icon: <BulbOutlined aria-hidden />,
  group: 'outputs',
  Fields: ({ endpoint: e, keep }) => {
    return (
      <>
        <NumberField
          label={msg.flashesFor}
          unit={units.s}
          value={e.seconds}
          help={msg.n1To60S}
          onKeep={(seconds) => keep({ seconds })}
        />
        <Field label={msg.pattern}>
          <Radio.Group
            size="small"
            optionType="button"
            aria-label={msg.flashPattern}
            value={e.pattern}
            options={STROBE_PATTERNS.map((value) => ({ value, label: msg.patterns[value] }))}
            onChange={(x) => keep({ pattern: x.target.value })}
          />
        </Field>
      </>
    )
  },
  start: () => ({ seconds: 10, pattern: 'fast' }),
  test: common.testIt,
  simulated: '/outputs'
}
