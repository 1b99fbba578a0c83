import { problemWords } from '../../../core/messages/errorWords.ts'
import { useState } from 'react'
import type { ClipView, RunView } from '../../../core/api.ts'
import { request } from '../../api/client.ts'
import { useRun } from '../../api/queries.ts'
import { useStable } from '../../stable.ts'
import type { Playhead } from '../playhead.ts'

/** Runs the clip as if it were live; at its own pace the picture plays with it. */
export function useRunAsLive(
  clip: ClipView | null,
  playhead: Playhead,
  say: (problem: string | null) => void
): { run: (speed: number) => void; view: RunView | null; close: () => void } {
  const [id, setId] = useState<string | null>(null)
  const start = async (speed: number): Promise<void> => {
    if (!clip) return
    try {
      const started = await request<RunView>('POST', `/api/clips/${clip.id}/runs`, { speed })
      say(null)
      setId(started.id)
      if (speed === 1) {
        playhead.seek(0)
        if (!playhead.playing) playhead.toggle()
      }
    } catch (error) {
      say(problemWords(error))
    }
  }
  return {
    run: useStable((speed: number) => void start(speed)),
    view: useRun(id).data ?? null,
    close: () => setId(null)
  }
}
