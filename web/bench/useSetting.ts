import { useMemo } from 'react'
import type { BenchView, ClipView } from '../../core/api.ts'
import type { Setting } from '../../core/detections/index.ts'
import type { LiveSetting } from '../../core/detections/liveEvaluation.ts'
import type { CameraPose } from '../../core/scene/camera.ts'
import { useKeyed } from '../stable.ts'
import type { DocumentState } from './document.ts'

/** What is drawn, and what it needs of the site: all that does not depend on what is on show. */
export function useDrawnSetting(
  { site: { timeZone, position } }: BenchView,
  { detections, schedules, scene: { ignore } }: DocumentState,
  pose: CameraPose | null
): LiveSetting {
  return useMemo(
    () => ({
      plan: { schedules, timeZone, ...(position && { position }) },
      camera: {
        ignore,
        ...(pose && { scene: pose }),
        detections: detections.map((p) => p.detection)
      }
    }),
    [detections, schedules, timeZone, position, ignore, pose]
  )
}

/** All that a clip is judged by; null without a clip. */
export function useSetting(drawn: LiveSetting, clip: ClipView | null): Setting | null {
  // Of the clip what is judged by, not how far its analysis is.
  const ofClip = useKeyed(
    JSON.stringify(clip && [clip.id, clip.fps, clip.start, clip.inputs]),
    clip && { fps: clip.fps, start: clip.start, inputs: clip.inputs }
  )
  return useMemo(() => ofClip && { ...drawn, ...ofClip }, [drawn, ofClip])
}
