import { said } from '../../messages/said.ts'
import { ofDevice, type Check } from '../facts.ts'
import { recordersIn } from '../recorders.ts'

/** There is room still, and one day there will be none. */
export const storageStops: Check = {
  code: 'storage-stops',
  find: (facts) =>
    recordersIn(facts).flatMap(({ device: { id, name, storage } }) =>
      (storage ?? [])
        .filter(({ whenFull, full }) => whenFull === 'stop' && !full)
        .map(({ place }) => ofDevice('warning', id, said('readiness.storageStops', name, place)))
    )
}
