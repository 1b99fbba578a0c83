import { said } from '../../messages/said.ts'
import { ofDevice, type Check } from '../facts.ts'

export const defaultPassword: Check = {
  code: 'default-password',
  find: ({ devices }) =>
    devices
      .filter(({ state }) => state === 'new')
      .map(({ id, name }) => ofDevice('blocking', id, said('readiness.defaultPassword', name)))
}
