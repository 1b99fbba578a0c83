import { said } from '../../messages/said.ts'
import { ofDevice, type Check } from '../facts.ts'

export const offline: Check = {
  code: 'offline',
  find: ({ devices }) =>
    devices.flatMap(({ id, name, state }) => {
      if (state === 'offline') return ofDevice('blocking', id, said('readiness.offline', name))
      if (state === 'wrong-password' || state === 'no-account')
        return ofDevice('blocking', id, said('readiness.wrongPassword', name))
      if (state === 'certificate')
        return ofDevice('blocking', id, said('readiness.otherCertificate', name))
      if (state === 'broken')
        return ofDevice('blocking', id, said('readiness.invalidResponse', name))
      return []
    })
}
