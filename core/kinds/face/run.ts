import { said } from '../../messages/said.ts'
import type { FaceDetection } from './schema.ts'
import { atLeast } from '../../geometry/shapes.ts'
import type { Face } from '../../targets/faces.ts'
import type { Gates } from '../../detections/gates.ts'
import type { GateReading, KindRun, Sighting } from '../../detections/types.ts'

interface FaceState {
  fired: boolean
  /** The face at the row just looked at; for the ladder. */
  face: Face | null
}

/** Face (docs/detections.md): a face large enough, with or without a mask, listed or not. Once per target. */
export class FaceRun implements KindRun {
  private readonly detection: FaceDetection
  private readonly gates: Gates

  constructor(detection: FaceDetection, gates: Gates) {
    this.detection = detection
    this.gates = gates
  }

  begin(): FaceState {
    return { fired: false, face: null }
  }

  look(state: FaceState, s: Sighting): null | undefined {
    state.face = s.face
    if (
      state.fired ||
      !state.face ||
      !this.large(state.face) ||
      !this.maskPasses(state.face) ||
      !this.listPasses(state.face) ||
      !this.gates.pass(s)
    )
      return undefined
    state.fired = true
    return null
  }

  private large({ w, h }: Face): boolean {
    const { faceMin } = this.detection
    return atLeast(w, faceMin.w) && atLeast(h, faceMin.h)
  }

  private maskPasses({ mask }: Face): boolean {
    return this.detection.mask === 'any' || mask === (this.detection.mask === 'with')
  }

  private listPasses({ name }: Face): boolean {
    const { list, faces } = this.detection
    return list === 'any' || (name !== null && faces.includes(name)) === (list === 'listed')
  }

  nearness({ face }: FaceState): number {
    if (!face) return 0
    const { faceMin } = this.detection
    const size = Math.min(1, face.w / (faceMin.w || 1e-9), face.h / (faceMin.h || 1e-9))
    return (size + (this.maskPasses(face) ? 1 : 0) + (this.listPasses(face) ? 1 : 0)) / 3
  }

  readings({ face }: FaceState): GateReading[] {
    const { faceMin, mask, list } = this.detection
    const readings: GateReading[] = [
      {
        gate: 'face',
        passed: face !== null && this.large(face),
        measured: face ? said('why.faceOf', face.w, face.h) : said('why.noFace'),
        limit: said('why.atLeastFrame', faceMin.w, faceMin.h),
        value: face?.h ?? 0,
        needed: faceMin.h
      }
    ]
    if (mask !== 'any')
      readings.push({
        gate: 'mask',
        passed: face !== null && this.maskPasses(face),
        measured:
          face?.mask === null || !face
            ? said('why.maskUnknown')
            : face.mask
              ? said('why.withMask')
              : said('why.withoutMask'),
        limit: said(mask === 'with' ? 'why.withMask' : 'why.withoutMask')
      })
    if (list !== 'any')
      readings.push({
        gate: 'list',
        passed: face !== null && this.listPasses(face),
        measured: face
          ? face.name === null
            ? said('why.unknownFace')
            : said('why.known', face.name)
          : said('why.noFace'),
        limit: list === 'listed' ? said('why.onList') : said('why.notOnList')
      })
    return readings
  }
}
