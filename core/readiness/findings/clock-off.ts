import { said } from '../../messages/said.ts'
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
          said('readiness.clockOff', name, Math.round(Math.abs(clockAhead ?? 0)), clockAhead ?? 0),
          { does: 'clock', words: said('readiness.setClock'), device: id }
        )
      )
}
