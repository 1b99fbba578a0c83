import { common } from '../../../core/messages/en/common.ts'
import { speaker as msg } from '../../../core/messages/en/actions/kinds.ts'
import { SoundOutlined } from '@ant-design/icons'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { SpeakerFields } from './SpeakerFields.tsx'
import type { EndpointFace } from './kind.ts'

export const speaker: EndpointFace<EndpointOf<'speaker'>> = {
  name: msg.speaker,
  icon: <SoundOutlined aria-hidden />,
  group: 'outputs',
  Fields: ({ endpoint: e, view, keep }) => {
    return <SpeakerFields endpoint={e} voices={view.voices} keep={keep} />
  },
  start: () => ({ voice: { phrase: 'recorded' }, repeats: 2, volume: 80 }),
  test: common.testIt,
  simulated: '/outputs'
}
