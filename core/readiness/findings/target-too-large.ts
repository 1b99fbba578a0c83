import { inUse, ofDetection, type Check } from '../facts.ts'
import { isAt, pathsFor, quantile, rounded } from '../seen.ts'

/** A larger target is not classified reliably. Common practice, no source. */
const SHARE = 0.1

export const targetTooLarge: Check = {
  code: 'target-too-large',
  find: ({ cameras }) =>
    cameras.flatMap((camera) =>
      inUse(camera).flatMap((d) => {
        if (!('classes' in d) || !('zone' in d || d.kind === 'line')) return []
        const max = d.size?.max
        if (max && max.w * max.h > SHARE && max.w < 1 && max.h < 1) return ofDetection('target-too-large', 'warning', 'drawn', camera, d, `${d.name}: its largest frame is ${rounded(max.w * max.h * 100, 0)} % of the picture; above ${SHARE * 100} % a target is not classified reliably.`)
        const areas = pathsFor(camera, d).flatMap(({ clip: { tracks }, rows }) => rows.filter((i) => isAt(d, tracks, i)).map((i) => tracks.w[i] * tracks.h[i]))
        const usual = areas.length ? quantile(areas, 0.5) : 0
        if (usual <= SHARE) return []
        return ofDetection('target-too-large', 'warning', 'drawn', camera, d, `${d.name}: on the clips, targets fill ${rounded(usual * 100, 0)} % of the picture there; above ${SHARE * 100} % they are not classified reliably. Move it further from the camera.`)
      })
    )
}
