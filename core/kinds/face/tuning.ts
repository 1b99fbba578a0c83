import { said } from '../../messages/said.ts'
import { frameOf, nearest, scaled, type GateChange, type Works } from '../../tuning/candidates.ts'
import type { FaceDetection } from './schema.ts'

/** The mask, the list and the smallest face: only what lets more through. */
export function* faceTuning(
  d: FaceDetection,
  looser: boolean,
  works: Works
): Generator<GateChange> {
  if (!looser) return
  if (d.mask !== 'any')
    yield {
      gate: 'mask',
      words: said('tuning.anyMask'),
      detection: { ...d, mask: 'any' },
      size: 1
    }
  if (d.list !== 'any')
    yield {
      gate: 'list',
      words: said('tuning.anyFace'),
      detection: { ...d, list: 'any' },
      size: 1
    }
  const by = nearest(1, 0.01, 0.01, (f) => works({ ...d, faceMin: scaled(d.faceMin, f) }))
  if (by !== null)
    yield {
      gate: 'face',
      words: said(
        'tuning.change',
        said('settings.faceSize'),
        frameOf(d.faceMin),
        frameOf(scaled(d.faceMin, by))
      ),
      detection: { ...d, faceMin: scaled(d.faceMin, by) },
      size: 1 - by
    }
}
