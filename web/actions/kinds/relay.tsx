import { common, units } from '../../../core/messages/en/common.ts'
import { relay as msg } from '../../../core/messages/en/actions/kinds.ts'
import { SwapOutlined } from '@ant-design/icons'
import { Select } from 'antd'
import { RELAY_MODES, type EndpointOf } from '../../../core/formats/actions.ts'
import { Field, NumberField } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

const relayWords: Record<(typeof RELAY_MODES)[number], string> = {
  pulse: msg.closesForASet,
  follow: msg.staysClosedWhileTriggersGo,
  untilAcknowledged: msg.staysClosedUntilTheAlarm
}

export const relay: EndpointFace<EndpointOf<'relay'>> = {
  name: msg.relay,
  icon: <SwapOutlined aria-hidden />,
  group: 'outputs',
  Fields: ({ endpoint: e, keep }) => {
    return (
      <>
        <Field label={msg.relayMode}>
          <Select
            size="small"
            aria-label={msg.relayMode}
            value={e.mode}
            options={RELAY_MODES.map((value) => ({ value, label: relayWords[value] }))}
            onChange={(mode) => keep({ mode })}
          />
        </Field>
        {e.mode !== 'untilAcknowledged' && (
          <NumberField
            label={e.mode === 'pulse' ? msg.closedFor : msg.opensAfterTheLastTrigger}
            unit={units.s}
            value={e.seconds}
            help={msg.n1To600S}
            onKeep={(seconds) => keep({ seconds })}
          />
        )}
      </>
    )
  },
  start: () => ({ mode: 'pulse', seconds: 5 }),
  test: common.testIt,
  simulated: '/outputs'
}
