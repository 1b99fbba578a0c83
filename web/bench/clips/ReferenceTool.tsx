import './clips.css'
import { Button } from 'antd'
import { useState, type ReactNode } from 'react'
import type { ClipView } from '../../../core/api.ts'
import { request } from '../../api/client.ts'
import type { Playhead } from '../playhead.ts'
import { clipTime } from '../../kinds/words.ts'

/** Learns a clip's tamper reference anew at the moment on show: what is seen there is as it should be. */
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
      await request('POST', `/api/clips/${clip.id}/reference`, { at })
      setError(null)
      onChanged()
    } catch (problem) {
      setError((problem as Error).message)
    }
  }
  const moments = clip.learnAnewAt
  return (
    <div className="reference-tool">
      <p className="quiet">
        The reference is the picture as it should be, learned at the clip’s start
        {moments.length > 0 && <> and again at {moments.map((s) => clipTime(s)).join(', ')}</>}. It
        follows slow light by itself.
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
          Learn it anew here
        </Button>
        {moments.length > 0 && (
          <Button size="small" type="text" onClick={() => void learn([])}>
            Only at the start
          </Button>
        )}
      </div>
      {error && <p className="field-error">{error}</p>}
    </div>
  )
}
