import { inputsAndOutputs as msg, outputNames } from '../../core/messages/en/devices.ts'
import './devices.css'
import { Button } from 'antd'
import type { ReactNode } from 'react'
import { request } from '../api/client.ts'
import type { PartProps } from './act.ts'
import { NotRun, Passed } from '../words/signs.tsx'
import { useClock } from '../words/useClock.ts'

/** Contacts and what the device can switch; each output can be tried. */
export function InputsAndOutputs({ device: d, act, working }: PartProps): ReactNode {
  const clock = useClock()
  if (!d.inputs.length && !d.outputs.length) return null
  return (
    <section aria-label={msg.inputsAndOutputs}>
      <h3>{msg.inputsAndOutputs}</h3>
      <ul className="device-io">
        {d.inputs.map(({ token, active }) => (
          <li key={token}>
            {active ? <Passed /> : <NotRun />}
            <span>
              <strong>{token}</strong>{' '}
              <span className="quiet">
                {active === null ? msg.noStateYet : active ? msg.active : msg.atRest}
              </span>
            </span>
          </li>
        ))}
        {d.outputs.map(({ token, kind, name, active, testedAt }) => (
          <li key={token}>
            {active ? <Passed /> : <NotRun />}
            <span>
              <strong>{name}</strong>{' '}
              <span className="quiet">
                {[
                  outputNames[kind],
                  active ? msg.activeNow : msg.atRest,
                  testedAt === null ? msg.notTested : msg.tested(clock.dateAndTime(testedAt))
                ].join(', ')}
              </span>
            </span>
            <Button
              size="small"
              loading={working === `test ${token}`}
              onClick={() =>
                void act(`test ${token}`, () =>
                  request('POST', `/devices/${d.id}/outputs/${token}/test`)
                )
              }
            >
              {msg.testOutput3S}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
