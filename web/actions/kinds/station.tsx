import { wordsOf } from '../../../core/messages/words.ts'
import { severities } from '../../../core/messages/en/codes/names.ts'
import { common, units } from '../../../core/messages/en/common.ts'
import { station as msg } from '../../../core/messages/en/actions/kinds.ts'
import { CustomerServiceOutlined } from '@ant-design/icons'
import { Select } from 'antd'
import type { ReactNode } from 'react'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { SEVERITIES } from '../../../core/kinds/parts.ts'
import { Field, NumberField, TextField } from '../fields.tsx'
import { useClock } from '../../words/useClock.ts'
import type { EndpointFace, FieldsProps } from './kind.ts'

export const station: EndpointFace<EndpointOf<'station'>> = {
  name: msg.monitoringStation,
  icon: <CustomerServiceOutlined aria-hidden />,
  group: 'messages',
  Fields: StationFields,
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

function StationFields({ endpoint: e, view, keep }: FieldsProps<EndpointOf<'station'>>): ReactNode {
  const clock = useClock()
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
      <Field label={msg.lowestSeverityAccepted}>
        <Select
          size="small"
          aria-label={msg.lowestSeverityAccepted}
          value={e.accepts}
          options={SEVERITIES.map((value) => ({ value, label: severities[value] }))}
          onChange={(accepts) => keep({ accepts })}
        />
      </Field>
      <NumberField
        label={msg.heartbeatEvery}
        unit={units.s}
        value={e.heartbeatSeconds}
        help={msg.n10To86400S0}
        onKeep={(heartbeatSeconds) => keep({ heartbeatSeconds })}
      />
      {beat && (
        <p className={beat.error ? 'failed' : 'quiet'}>
          {beat.error
            ? msg.heartbeat(wordsOf(beat.error))
            : msg.heartbeatConfirmed(clock.time(beat.answeredAt!))}
        </p>
      )}
    </>
  )
}
