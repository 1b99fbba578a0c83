import { ofDevice, type Check } from '../facts.ts'

export const clockOff: Check = {
  code: 'clock-off',
  find: ({ devices }) =>
    devices
      .filter(({ state }) => state === 'clock-off')
      .map(({ id, name, clockAhead }) =>
        ofDevice(
          'blocking',
          id,
          `The clock of ${name} is ${Math.round(Math.abs(clockAhead ?? 0))} s ${(clockAhead ?? 0) > 0 ? 'ahead' : 'behind'}: its events and its own arming hours are wrong by that. Set its time source.`
        )
      )
}
