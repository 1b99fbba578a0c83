import { said } from '../../messages/said.ts'
import { ofDevice, type Check } from '../facts.ts'
import { recordersIn } from '../recorders.ts'

export const noStorage: Check = {
  code: 'no-storage',
  find: (facts) =>
    recordersIn(facts).flatMap(({ device, cameras }) =>
      device.storage?.length === 0
        ? ofDevice(
            'blocking',
            device.id,
            said(
              'readiness.noStorage',
              device.name,
              cameras.map(({ name }) => name)
            )
          )
        : []
    )
}
