import type { EndpointOf } from '../../../core/formats/actions.ts'
import { NumberField } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

export const buzzer: EndpointFace<EndpointOf<'buzzer'>> = {
  name: 'Buzzer',
  glyph: '♪',
  group: 'Outputs',
  Fields: ({ endpoint: e, keep }) => {
    return (
      <NumberField
        label="Sounds for"
        unit="s"
        value={e.seconds}
        help="1 to 60 s"
        onKeep={(seconds) => keep({ seconds })}
      />
    )
  },
  start: () => ({ seconds: 10 }),
  test: 'Test it',
  simulated: '/outputs'
}
