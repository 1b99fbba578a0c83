import { said } from '../../messages/said.ts'
import { ofDevice, type Check } from '../facts.ts'
import { recordersIn } from '../recorders.ts'

export const storageFull: Check = {
  code: 'storage-full',
  find: (facts) =>
    recordersIn(facts).flatMap(({ device: { id, name, storage } }) =>
      (storage ?? [])
        .filter(({ whenFull, full }) => whenFull === 'stop' && full)
        .map(({ place }) => ofDevice('blocking', id, said('readiness.storageFull', name, place)))
    )
}
