import { useMemo } from 'react'
import type { BenchView, ClipView } from '../../core/api.ts'
import type { Setting } from '../../core/detections/index.ts'
import type { CameraPose } from '../../core/scene/camera.ts'
import { useKeyed } from '../stable.ts'
import type { DocumentState } from './document.ts'

/** All that a clip is judged by; null without a clip. */
export function useSetting(
  { site: { timeZone, position } }: BenchView,
  clip: ClipView | null,
  { detections, schedules, scene: { ignore } }: DocumentState,
  pose: CameraPose | null
): Setting | null {
  // Of the clip what is judged by, not how far its analysis is.
  const ofClip = useKeyed(
    JSON.stringify(clip && [clip.id, clip.fps, clip.start, clip.inputs]),
    clip && { fps: clip.fps, start: clip.start, inputs: clip.inputs }
  )
  return useMemo(
    () =>
      ofClip && {
        plan: { schedules, timeZone, ...(position && { position }) },
        camera: {
          ignore,
          ...(pose && { scene: pose }),
          detections: detections.map((p) => p.detection)
        },
        ...ofClip
      },
    [ofClip, detections, schedules, timeZone, position, ignore, pose]
  )
}
