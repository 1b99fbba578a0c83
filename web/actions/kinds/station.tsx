import { wordsOf } from '../../../core/messages/words.ts'
import { common } from '../../../core/messages/en/common.ts'
import { station as msg } from '../../../core/messages/en/actions/kinds.ts'
import { Select } from 'antd'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { SEVERITIES } from '../../../core/kinds/parts.ts'
import { Field, NumberField, TextField } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

export const station: EndpointFace<EndpointOf<'station'>> = {
  name: msg.monitoringStation,
  glyph: '⌂',
  group: 'messages',
  Fields: ({ endpoint: e, view, keep }) => {
    const beat = view.stations[e.id]
    return (
      <>
        <TextField
          key={`host ${e.host}`}
          label={common.address}
          value={e.host}
          help={msg.itsNameOrIpAddress}
          onKeep={(host) => keep({ host })}
        />
        <NumberField label={msg.port} value={e.port} onKeep={(port) => keep({ port })} />
        <TextField
          key={`account ${e.account}`}
          label={common.account}
          value={e.account}
          short
          help={msg.n3To16HexadecimalDigits}
          onKeep={(account) => keep({ account })}
        />
        <Field label={msg.itAcceptsFrom}>
          <Select
            size="small"
            aria-label={msg.itAcceptsFrom}
            value={e.accepts}
            options={SEVERITIES.map((value) => ({ value, label: value }))}
            onChange={(accepts) => keep({ accepts })}
          />
        </Field>
        <NumberField
          label={msg.heartbeatEvery}
          unit="s"
          value={e.heartbeatSeconds}
          help={msg.n10To86400S0}
          onKeep={(heartbeatSeconds) => keep({ heartbeatSeconds })}
        />
        {beat && (
          <p className={beat.error ? 'failed' : 'quiet'}>
            {beat.error
              ? msg.heartbeat(wordsOf(beat.error))
              : msg.heartbeatAnswered(new Date(beat.answeredAt!).toLocaleTimeString('en-GB'))}
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
  test: common.testIt,
  simulated: '/station'
}
