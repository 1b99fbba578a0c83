import { ofDevice, type Check } from '../facts.ts'

export const offline: Check = {
  code: 'offline',
  find: ({ devices }) =>
    devices.flatMap(({ id, name, state }) => {
      if (state === 'offline')
        return ofDevice(
          'blocking',
          id,
          `${name} cannot be reached: nothing can be sent to it, and nothing is heard from it.`
        )
      if (state === 'wrong-password' || state === 'no-account')
        return ofDevice(
          'blocking',
          id,
          `${name} does not accept the account: nothing can be read or sent. Say the right one under Devices.`
        )
      if (state === 'broken')
        return ofDevice('blocking', id, `${name} answers wrongly: what it holds is not known.`)
      return []
    })
}
