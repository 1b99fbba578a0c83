import { said } from '../../messages/said.ts'
import { ofDevice } from '../facts.ts'
import { perRecorder } from '../recorders.ts'

/** There is room still, and one day there will be none. */
export const storageStops = perRecorder('storage-stops', ({ device: { id, name, storage } }) =>
  (storage ?? [])
    .filter(({ whenFull, full }) => whenFull === 'stop' && !full)
    .map(({ place }) => ofDevice('warning', id, said('readiness.storageStops', name, place)))
)
