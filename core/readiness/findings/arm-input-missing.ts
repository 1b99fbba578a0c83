import { ofDetection, perDetection } from '../facts.ts'

export const armInputMissing = perDetection('arm-input-missing', (d, camera, { inputs }) => {
  const wanted = [
    ...(d.armInput ? [d.armInput.input] : []),
    ...(d.kind === 'contact' ? [d.input] : [])
  ]
  return wanted.flatMap((id) => {
    const input = inputs.find((i) => i.id === id)
    if (input?.known) return []
    const what = d.kind === 'contact' && id === d.input ? 'is never heard' : 'is never set'
    return ofDetection(
      'blocking',
      'armed',
      camera,
      d,
      `${d.name} does not fire on site: ${input?.name ?? id} ${what}, as no device has it.`,
      { does: 'go', words: 'Choose its contact', to: '/arming?show=inputs' }
    )
  })
})
