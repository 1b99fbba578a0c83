import { Select } from 'antd'
import { RELAY_MODES, type EndpointOf } from '../../../core/formats/actions.ts'
import { Field, NumberField } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

const relayWords: Record<(typeof RELAY_MODES)[number], string> = {
  pulse: 'closes for some seconds',
  follow: 'stays closed while triggers go on',
  untilAcknowledged: 'stays closed until the alarm is acknowledged'
}

export const relay: EndpointFace<EndpointOf<'relay'>> = {
  name: 'Relay',
  glyph: '⇄',
  group: 'Outputs',
  Fields: ({ endpoint: e, keep }) => {
    return (
      <>
        <Field label="The relay">
          <Select
            size="small"
            aria-label="The relay"
            value={e.mode}
            options={RELAY_MODES.map((value) => ({ value, label: relayWords[value] }))}
            onChange={(mode) => keep({ mode })}
          />
        </Field>
        {e.mode !== 'untilAcknowledged' && (
          <NumberField
            label={e.mode === 'pulse' ? 'Closed for' : 'Opens after the last trigger by'}
            unit="s"
            value={e.seconds}
            help="1 to 600 s"
            onKeep={(seconds) => keep({ seconds })}
          />
        )}
      </>
    )
  },
  start: () => ({ mode: 'pulse', seconds: 5 }),
  test: 'Test it',
  simulated: '/outputs'
}
