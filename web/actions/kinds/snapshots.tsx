import type { EndpointOf } from '../../../core/formats/actions.ts'
import { CameraField, PictureFields } from './sharedFields.tsx'
import type { EndpointFace } from './kind.ts'

export const snapshots: EndpointFace<EndpointOf<'snapshots'>> = {
  name: 'Snapshots',
  glyph: '▤',
  group: 'Records',
  Fields: ({ endpoint: e, view, keep }) => {
    return (
      <>
        <CameraField
          label="Of"
          value={e.camera}
          view={view}
          onKeep={(camera) => keep({ camera })}
        />
        <PictureFields endpoint={e} keep={keep} />
      </>
    )
  },
  start: () => ({ camera: null, before: 2, after: 2 }),
  test: 'Ask for a picture',
  simulated: null
}
