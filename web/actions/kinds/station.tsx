import { Select } from 'antd'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { SEVERITIES } from '../../../core/kinds/parts.ts'
import { Field, NumberField, TextField } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

export const station: EndpointFace<EndpointOf<'station'>> = {
  name: 'Monitoring station',
  glyph: '⌂',
  group: 'Messages',
  Fields: ({ endpoint: e, view, keep }) => {
    const beat = view.stations[e.id]
    return (
      <>
        <TextField
          key={`host ${e.host}`}
          label="Address"
          value={e.host}
          help="its name or IP address"
          onKeep={(host) => keep({ host })}
        />
        <NumberField label="Port" value={e.port} onKeep={(port) => keep({ port })} />
        <TextField
          key={`account ${e.account}`}
          label="Account"
          value={e.account}
          short
          help="3 to 16 hexadecimal digits (SIA DC-09)"
          onKeep={(account) => keep({ account })}
        />
        <Field label="It accepts from">
          <Select
            size="small"
            aria-label="It accepts from"
            value={e.accepts}
            options={SEVERITIES.map((value) => ({ value, label: value }))}
            onChange={(accepts) => keep({ accepts })}
          />
        </Field>
        <NumberField
          label="Heartbeat every"
          unit="s"
          value={e.heartbeatSeconds}
          help="10 to 86400 s; 0: none"
          onKeep={(heartbeatSeconds) => keep({ heartbeatSeconds })}
        />
        {beat && (
          <p className={beat.error ? 'failed' : 'quiet'}>
            {beat.error
              ? `✕ heartbeat: ${beat.error}`
              : `✓ heartbeat answered ${new Date(beat.answeredAt!).toLocaleTimeString('en-GB')}`}
          </p>
        )}
      </>
    )
  },
  start: (simulators) => ({
    host: simulators?.host ?? 'station.example.org',
    port: 7700,
    account: '0001',
    accepts: 'minor',
    heartbeatSeconds: 60
  }),
  test: 'Test it',
  simulated: '/station'
}
