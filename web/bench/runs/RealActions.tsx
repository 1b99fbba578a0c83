import { common } from '../../../core/messages/en/common.ts'
import { realActions as msg } from '../../../core/messages/en/bench/runs.ts'
import { Button, Modal } from 'antd'
import type { ReactNode } from 'react'
import type { Asking } from './useRunAsLive.ts'

/** Asks before a replay reaches somebody or switches something; the harmless way comes first. */
export function RealActions({
  asking,
  onAnswer
}: {
  asking: Asking
  onAnswer: (hold: boolean | null) => void
}): ReactNode {
  return (
    <Modal
      open
      title={msg.runRealActionsIn}
      onCancel={() => onAnswer(null)}
      footer={
        <>
          <Button onClick={() => onAnswer(null)}>{common.cancel}</Button>
          <Button danger onClick={() => onAnswer(false)}>
            {msg.run}
          </Button>
          <Button type="primary" autoFocus onClick={() => onAnswer(true)}>
            {msg.replayWithThemHeld}
          </Button>
        </>
      }
    >
      <p>{msg.triggersOfThisReplay}</p>
      <ul>
        {asking.real.map(({ id, name, kind }) => (
          <li key={id}>
            <strong>{name}</strong> <span className="quiet">{msg.kinds[kind]}</span>
          </li>
        ))}
      </ul>
    </Modal>
  )
}
