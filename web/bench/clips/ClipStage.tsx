import { wordsOf } from '../../../core/messages/words.ts'
import { common } from '../../../core/messages/en/common.ts'
import { clipStage as msg } from '../../../core/messages/en/bench/clips.ts'
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
  /** Null: no device shows the camera. */
  onLive: (() => void) | null
}): ReactNode {
  if (!clip)
    return (
      <div className="stage-note">
        <InboxOutlined className="large" aria-hidden="true" />
        <h2>{msg.noClipOfThisCamera}</h2>
        <p>{msg.dropAVideoHere}</p>
        <Button type="primary" onClick={onFile}>
          {msg.chooseVideo}
        </Button>
        {onMake && <Button onClick={onMake}>{msg.makeAClipFromA}</Button>}
        {onLive && <Button onClick={onLive}>{msg.drawOnItsLivePicture}</Button>}
      </div>
    )
  const act = (what: 'stop' | 'analyse'): void =>
    void request('POST', `/clips/${clip.id}/${what}`).finally(onChanged)
  if (clip.state === 'stopped')
    return (
      <div className="stage-note">
        <h2>{msg.hasNotBeenAnalysed(clip.name)}</h2>
        <p>{msg.itsAnalysisWasStoppedWithout}</p>
        <Button type="primary" onClick={() => act('analyse')}>
          {msg.analyseIt}
        </Button>
      </div>
    )
  return (
    <div className="stage-note" aria-live="polite">
      <AnalysisProgress clip={clip} onStop={() => act('stop')} />
    </div>
  )
}

/** How far the analysis of a clip has come, while something else is looked at. */
export const AnalysisStrip = ({
  clip,
  onChanged
}: {
  clip: ClipView
  onChanged: () => void
}): ReactNode => (
  <div className="analysis-strip" aria-live="polite">
    <AnalysisProgress
      clip={clip}
      onStop={() => void request('POST', `/clips/${clip.id}/stop`).finally(onChanged)}
    />
  </div>
)

function AnalysisProgress({ clip, onStop }: { clip: ClipView; onStop: () => void }): ReactNode {
  const share = clip.progress?.share ?? null
  return (
    <>
      <h2>
        {clip.made ? msg.making : msg.analysing} {clip.name}
      </h2>
      <Progress
        percent={Math.round((share ?? 0) * 100)}
        status="active"
        showInfo={share !== null}
      />
      <p>{wordsOf(clip.progress?.step ?? msg.starting)}</p>
      <Button onClick={onStop}>{common.stop}</Button>
    </>
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
