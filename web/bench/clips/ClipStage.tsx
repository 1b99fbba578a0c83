import './clips.css'
import { InboxOutlined } from '@ant-design/icons'
import { Alert, Button, Progress } from 'antd'
import type { ReactNode } from 'react'
import type { ClipView } from '../../../core/api.ts'
import { request } from '../../api/client.ts'

/** What stands in the picture's place while there is no analysed clip. */
export function ClipStage({
  clip,
  onChanged,
  onFile,
  onMake,
  onLive
}: {
  clip: ClipView | null
  onChanged: () => void
  onFile: () => void
  onMake: (() => void) | null
  onLive: () => void
}): ReactNode {
  if (!clip)
    return (
      <div className="stage-note">
        <InboxOutlined className="large" aria-hidden="true" />
        <h2>No clip of this camera yet</h2>
        <p>
          Drop a video file here, or choose one. Wardoptic finds who and what moves in it; every
          line you draw is tried on it at once.
        </p>
        <Button type="primary" onClick={onFile}>
          Choose a video file
        </Button>
        {onMake && <Button onClick={onMake}>Make a clip from a script</Button>}
        <Button onClick={onLive}>Draw on its live picture</Button>
      </div>
    )
  const act = (what: 'stop' | 'analyse'): void =>
    void request('POST', `/api/clips/${clip.id}/${what}`).finally(onChanged)
  if (clip.state === 'stopped')
    return (
      <div className="stage-note">
        <h2>{clip.name} has not been analysed</h2>
        <p>Its analysis was stopped. Without targets nothing can be tried on it.</p>
        <Button type="primary" onClick={() => act('analyse')}>
          Analyse it
        </Button>
      </div>
    )
  const share = clip.progress?.share ?? null
  return (
    <div className="stage-note" aria-live="polite">
      <h2>
        {clip.made ? 'Making' : 'Analysing'} {clip.name}
      </h2>
      <Progress
        percent={Math.round((share ?? 0) * 100)}
        status="active"
        showInfo={share !== null}
      />
      <p>{clip.progress?.step ?? 'Starting'}</p>
      <Button onClick={() => act('stop')}>Stop</Button>
    </div>
  )
}

export function ClipErrors({
  messages,
  onClose
}: {
  messages: string[]
  onClose: () => void
}): ReactNode {
  return messages.map((message) => (
    <Alert
      key={message}
      className="clip-error"
      type="error"
      showIcon
      title={message}
      closable={{ onClose }}
    />
  ))
}
