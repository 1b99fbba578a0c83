import { inUse, ofDetection, type Check } from '../facts.ts'
import { rounded } from '../seen.ts'

/** Within reach of a hand. Common practice, no source. */
const METRES = 2.5

export const tamperLowMount: Check = {
  code: 'tamper-low-mount',
  find: ({ cameras }) =>
    cameras.flatMap((camera) => {
      const { pose } = camera
      if (!pose || pose.height >= METRES) return []
      return inUse(camera).filter(({ kind }) => kind === 'tamper').map((d) => ofDetection('tamper-low-mount', 'hint', 'drawn', camera, d, `${camera.name} hangs at ${rounded(pose.height)} m, within reach: people who pass close by can set ${d.name} off.`))
    })
}
