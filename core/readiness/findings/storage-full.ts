import { said } from '../../messages/said.ts'
import { ofDevice } from '../facts.ts'
import { perRecorder } from '../recorders.ts'

export const storageFull = perRecorder('storage-full', ({ device: { id, name, storage } }) =>
  (storage ?? [])
    .filter(({ whenFull, full }) => whenFull === 'stop' && full)
    .map(({ place }) => ofDevice('blocking', id, said('readiness.storageFull', name, place)))
)
