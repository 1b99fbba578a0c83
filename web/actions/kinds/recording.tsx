import { common, units } from '../../../core/messages/en/common.ts'
import { recording as msg } from '../../../core/messages/en/actions/kinds.ts'
import { VideoCameraOutlined } from '@ant-design/icons'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { NumberField } from '../fields.tsx'
import { CameraField } from './sharedFields.tsx'
import type { EndpointFace } from './kind.ts'

export const recording: EndpointFace<EndpointOf<'recording'>> = {
  name: msg.recording,
  icon: <VideoCameraOutlined aria-hidden />,
  group: 'records',
  Fields: ({ endpoint: e, view, keep }) => {
    return (
      <>
        <CameraField
          label={common.of}
          value={e.camera}
          view={view}
          onKeep={(camera) => keep({ camera })}
        />
        <NumberField
          label={msg.beforeTheTrigger}
          unit={units.s}
          value={e.beforeSeconds}
          help={msg.n0To60S}
          onKeep={(beforeSeconds) => keep({ beforeSeconds })}
        />
        <NumberField
          label={msg.afterIt}
          unit={units.s}
          value={e.afterSeconds}
          help={msg.n1To600S}
          onKeep={(afterSeconds) => keep({ afterSeconds })}
        />
      </>
    )
  },
  start: () => ({ camera: null, beforeSeconds: 5, afterSeconds: 15 }),
  test: msg.testPicture,
  simulated: null
}
