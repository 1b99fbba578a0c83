import { wordsOf } from '../../core/messages/words.ts'
import { common } from '../../core/messages/en/common.ts'
import { sendingPanel as msg } from '../../core/messages/en/devices.ts'
import './devices.css'
import { Button, Progress } from 'antd'
import { useEffect, type ReactNode } from 'react'
import type { SendResult } from '../../core/devices/views.ts'
import { useStable } from '../stable.ts'
import { useSending } from './useDevices.ts'
import { Failed, Passed } from '../words/signs.tsx'

const holdsWords: Record<SendResult['holds'], string> = {
  new: msg.theDeviceHasTheNew,
  old: msg.theDeviceKeepsIts,
  none: msg.itIsNotOn,
  unknown: msg.theDeviceHasThe
}

/** How far a sending is, and what came of it, device by device. */
export function SendingPanel({
  id,
  onClose,
  onProgress
}: {
  id: string
  onClose: () => void
  onProgress: () => void
}): ReactNode {
  const { data, isError } = useSending(id)
  const done = data?.devices.filter((d) => d.state === 'done' || d.state === 'failed').length ?? 0
  // What has been sent changes how the devices stand.
  const tell = useStable(onProgress)
  useEffect(tell, [done, tell])
  if (isError) return null
  const results = data?.devices.flatMap((d) => d.results) ?? []
  const failed = data?.devices.some((d) => d.state === 'failed')
  return (
    <div role="status" className="send-results" aria-label={msg.sending}>
      <header className="row">
        <h3>
          {!data?.finished
            ? msg.sending2
            : failed
              ? msg.partlySent
              : results.length
                ? msg.sentAndVerified
                : msg.noChangesToSend}
        </h3>
        {data?.finished && (
          <Button size="small" type="text" onClick={onClose}>
            {common.close}
          </Button>
        )}
      </header>
      {data && !data.finished && (
        <Progress size="small" percent={Math.round((100 * done) / data.devices.length)} />
      )}
      <ul>
        {data?.devices
          .filter((d) => d.state !== 'waiting')
          .map((d) => (
            <li key={d.id}>
              {data.devices.length > 1 && (
                <strong>
                  {d.name}:{' '}
                  {d.state === 'sending'
                    ? common.sending
                    : d.results.length || d.error
                      ? ''
                      : msg.nothingToSend}
                </strong>
              )}
              {d.error && (
                <p className="failed">
                  <Failed /> {wordsOf(d.error)}
                </p>
              )}
              {d.results.map((r) => (
                <p
                  key={`${r.channel} ${r.detection} ${r.what}`}
                  className={r.error ? 'failed' : ''}
                >
                  {r.error ? <Failed /> : <Passed />} {wordsOf(r.name)}{' '}
                  {r.error ? msg.not(r.what, wordsOf(r.error), holdsWords[r.holds]) : r.what}
                </p>
              ))}
            </li>
          ))}
      </ul>
    </div>
  )
}
