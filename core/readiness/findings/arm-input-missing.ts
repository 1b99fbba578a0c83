import { said } from '../../messages/said.ts'
import { ofDetection, perDetection } from '../facts.ts'

export const armInputMissing = perDetection('arm-input-missing', (d, camera, { inputs }) => {
  const wanted = [
    ...(d.armInput ? [d.armInput.input] : []),
    ...(d.kind === 'contact' ? [d.input] : [])
  ]
  return wanted.flatMap((id) => {
    const input = inputs.find((i) => i.id === id)
    if (input?.known) return []
    const what =
      d.kind === 'contact' && id === d.input
        ? said('readiness.neverHeard')
        : said('readiness.neverSet')
    return ofDetection(
      'blocking',
      'armed',
      camera,
      d,
      said('readiness.armInputMissing', d.name, input?.name ?? id, what),
      { does: 'go', words: said('readiness.chooseContact'), to: '/arming?show=inputs' }
    )
  })
})
