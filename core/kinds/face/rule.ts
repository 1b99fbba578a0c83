import { sizeOf, sizeText } from '../../formats/onvif/parameters.ts'
import type { RuleOf } from '../rule.ts'
import type { FaceDetection } from './schema.ts'

/** Face as a rule of a device's own. */
export const faceRule: RuleOf<FaceDetection> = {
  type: 'wo:FaceDetector',
  blank: {},
  write: (d, to) => {
    to.item('FaceSize', 'smallest face frame', sizeText(d.faceMin))
    if (d.mask !== 'any') to.item('Mask', 'mask', d.mask)
    if (d.list !== 'any')
      to.lose(
        'list of faces',
        d.list === 'listed' ? 'only listed ones' : 'only ones not listed',
        'any face'
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
