import type { EndpointOf } from '../../../core/formats/actions.ts'
import { SpeakerFields } from './SpeakerFields.tsx'
import type { EndpointFace } from './kind.ts'

export const speaker: EndpointFace<EndpointOf<'speaker'>> = {
  name: 'Speaker',
  glyph: '◖',
  group: 'Outputs',
  Fields: ({ endpoint: e, view, keep }) => {
    return <SpeakerFields endpoint={e} voices={view.voices} keep={keep} />
  },
  start: () => ({ voice: { phrase: 'recorded' }, repeats: 2, volume: 80 }),
  test: 'Test it',
  simulated: '/outputs'
}
