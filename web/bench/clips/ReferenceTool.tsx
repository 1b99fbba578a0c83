import { clipTime } from '../../../core/messages/format.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { referenceTool as msg } from '../../../core/messages/en/bench/clips.ts'
import './clips.css'
import { Button } from 'antd'
import { useState, type ReactNode } from 'react'
import type { ClipView } from '../../../core/api.ts'
import { request } from '../../api/client.ts'
import type { Playhead } from '../playhead.ts'

/** Learns a clip's tamper reference again at the moment on show: what is seen there is as it should be. */
export function ReferenceTool({
  clip,
  playhead,
  onChanged
}: {
  clip: ClipView
  playhead: Playhead
  onChanged: () => void
}): ReactNode {
  const [error, setError] = useState<string | null>(null)
  const learn = async (at: number[]): Promise<void> => {
    try {
      await request('POST', `/clips/${clip.id}/reference`, { at })
      setError(null)
      onChanged()
    } catch (problem) {
      setError(problemWords(problem))
    }
  }
  const moments = clip.learnAnewAt
  return (
    <div className="reference-tool">
      <p className="quiet">
        {msg.theReferenceIsThePicture}
        {moments.length > 0 && <> {msg.andFrom(moments.map((s) => clipTime(s)).join(', '))}</>}
        {msg.itFollowsSlowLight}
      </p>
      <div className="row">
        <Button
          size="small"
          onClick={() =>
            void learn(
              [...moments.filter((s) => s !== playhead.time), playhead.time].sort((a, b) => a - b)
            )
          }
        >
          {msg.useThisMoment}
        </Button>
        {moments.length > 0 && (
          <Button size="small" type="text" onClick={() => void learn([])}>
            {msg.onlyAtTheStart}
          </Button>
        )}
      </div>
      {error && <p className="field-error">{error}</p>}
    </div>
  )
}
