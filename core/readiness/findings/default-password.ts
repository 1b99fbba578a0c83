import { ofDevice, type Check } from '../facts.ts'

export const defaultPassword: Check = {
  code: 'default-password',
  find: ({ devices }) =>
    devices
      .filter(({ state }) => state === 'new')
      .map(({ id, name }) =>
        ofDevice(
          'blocking',
          id,
          `${name} is fresh from the box: whoever reaches it first can take it over. Give it its first account under Devices.`
        )
      )
}
