import { common } from '../../../core/messages/en/common.ts'
import { snapshots as msg } from '../../../core/messages/en/actions/kinds.ts'
import { CameraOutlined } from '@ant-design/icons'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { CameraField, PictureFields } from './sharedFields.tsx'
import type { EndpointFace } from './kind.ts'

export const snapshots: EndpointFace<EndpointOf<'snapshots'>> = {
  name: msg.snapshots,
  icon: <CameraOutlined aria-hidden />,
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
        <PictureFields endpoint={e} keep={keep} />
      </>
    )
  },
  start: () => ({ camera: null, before: 2, after: 2 }),
  test: msg.testPicture,
  simulated: null
}
