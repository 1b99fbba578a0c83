import { said } from '../../messages/said.ts'
import { ofDevice } from '../facts.ts'
import { perRecorder } from '../recorders.ts'

export const noStorage = perRecorder('no-storage', ({ device: { id, name, storage }, cameras }) =>
  storage?.length === 0
    ? ofDevice(
        'blocking',
        id,
        said(
          'readiness.noStorage',
          name,
          cameras.map((c) => c.name)
        )
      )
    : []
)
