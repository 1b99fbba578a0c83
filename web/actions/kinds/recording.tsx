import type { EndpointOf } from '../../../core/formats/actions.ts'
import { NumberField } from '../fields.tsx'
import { CameraField } from './sharedFields.tsx'
import type { EndpointFace } from './kind.ts'

export const recording: EndpointFace<EndpointOf<'recording'>> = {
  name: 'Recording',
  glyph: '◉',
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
        <NumberField
          label="Before the trigger"
          unit="s"
          value={e.beforeSeconds}
          help="0 to 60 s"
          onKeep={(beforeSeconds) => keep({ beforeSeconds })}
        />
        <NumberField
          label="After it"
          unit="s"
          value={e.afterSeconds}
          help="1 to 600 s"
          onKeep={(afterSeconds) => keep({ afterSeconds })}
        />
      </>
    )
  },
  start: () => ({ camera: null, beforeSeconds: 5, afterSeconds: 15 }),
  test: 'Ask for a picture',
  simulated: null
}
