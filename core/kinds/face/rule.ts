import { said } from '../../messages/said.ts'
import { sizeOf, sizeText } from '../../formats/onvif/parameters.ts'
import type { RuleOf } from '../rule.ts'
import type { FaceDetection } from './schema.ts'

/** Face as a rule of a device's own. */
export const faceRule: RuleOf<FaceDetection> = {
  type: 'wo:FaceDetector',
  blank: {},
  write: (d, to) => {
    to.item(
      'FaceSize',
      'faceSize',
      sizeText(d.faceMin),
      said('values.frame', d.faceMin.w, d.faceMin.h)
    )
    if (d.mask !== 'any') to.item('Mask', 'mask', d.mask)
    if (d.list !== 'any')
      to.lose(
        'faceList',
        d.list === 'listed' ? said('values.listedFaces') : said('values.unlistedFaces'),
        said('values.anyFace')
      )
    return []
  },
  read: (_, { simple }) => {
    const faceMin = simple.FaceSize === undefined ? null : sizeOf(simple.FaceSize)
    return {
      // What is no such word is refused when the whole detection is read.
      ...(simple.Mask !== undefined && { mask: simple.Mask as FaceDetection['mask'] }),
      ...(faceMin && { faceMin })
    }
  }
}
