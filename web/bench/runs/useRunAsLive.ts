import { problemWords } from '../../../core/messages/errorWords.ts'
import { useState } from 'react'
import type { ClipView, RealActionsView, RunView } from '../../../core/api.ts'
import { request } from '../../api/client.ts'
import { useRun } from '../../api/queries.ts'
import { useStable } from '../../stable.ts'
import type { Playhead } from '../playhead.ts'

/** A replay that would really do something, and waits for an answer. */
export interface Asking {
  speed: number
  real: RealActionsView['real']
}

export interface RunAsLive {
  run: (speed: number) => void
  asking: Asking | null
  /** @param hold null: it is not replayed */
  answer: (hold: boolean | null) => void
  view: RunView | null
  close: () => void
}

/** Replays the clip as if it were live; at its own pace the picture plays with it. */
export function useRunAsLive(
  clip: ClipView | null,
  playhead: Playhead,
  say: (problem: string | null) => void
): RunAsLive {
  const [id, setId] = useState<string | null>(null)
  const [asking, setAsking] = useState<Asking | null>(null)
  const start = async (speed: number, hold: boolean): Promise<void> => {
    const started = await request<RunView>('POST', `/clips/${clip!.id}/runs`, { speed, hold })
    say(null)
    setId(started.id)
    if (speed === 1) {
      playhead.seek(0)
      if (!playhead.playing) playhead.toggle()
    }
  }
  const act = (work: () => Promise<void>): void =>
    void work().catch((error: unknown) => say(problemWords(error)))
  return {
    run: useStable((speed: number) =>
      act(async () => {
        if (!clip) return
        const { real } = await request<RealActionsView>('GET', `/clips/${clip.id}/real-actions`)
        if (real.length) setAsking({ speed, real })
        else await start(speed, false)
      })
    ),
    asking,
    answer: (hold) => {
      setAsking(null)
      if (asking && hold !== null) act(() => start(asking.speed, hold))
    },
    view: useRun(id).data ?? null,
    close: () => setId(null)
  }
}
