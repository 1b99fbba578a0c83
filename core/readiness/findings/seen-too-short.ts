import { said } from '../../messages/said.ts'
import { evaluate } from '../../detections/index.ts'
import { ofDetection, perDetection } from '../facts.ts'
import { quantile } from '../../tuning/quantile.ts'
import { pathsOn, rounded } from '../seen.ts'

/** In view for less, a target is not classified reliably. Common practice, no source. */
const SECONDS = 2

export const seenTooShort = perDetection('seen-too-short', (d, camera) => {
  if (d.kind !== 'line') return []
  const seen = camera.clips.flatMap((clip) => {
    const triggers = evaluate(
      {
        plan: { schedules: [], timeZone: 'UTC' },
        camera: {
          ignore: [],
          detections: [
            { ...d, schedule: undefined, armInput: undefined, confirmSeconds: 0, size: undefined }
          ]
        },
        fps: clip.tracks.fps,
        start: 0
      },
      clip.tracks
    )
    const paths = pathsOn(clip)
    return triggers.flatMap(({ target, time }) => {
      const path = paths.filter((p) => p.id === target && p.from <= time).at(-1)
      return path ? time - path.from : []
    })
  })
  const median = seen.length ? quantile(seen, 0.5) : Infinity
  if (median >= SECONDS) return []
  return ofDetection(
    'warning',
    'drawn',
    camera,
    d,
    said('readiness.seenTooShort', d.name, rounded(median), SECONDS)
  )
})
