import { routesOf, realLosses } from '../deviceRoutes.ts'
import { ofDetection, perDetection } from '../facts.ts'

/** A setting that no device of the camera knows at all: on site it is as if it had not been set. */
export const notHeld = perDetection('not-held', (d, camera, { schedules }) => {
  const doors = routesOf(camera, d, schedules)
  const closed = routesOf(camera, d, schedules, false)
  return realLosses(doors)
    .filter(
      ({ loss }) =>
        (loss.nearest === null || !/\d/.test(loss.nearest)) &&
        !closed.some((other) => other.losses.every(({ setting }) => setting !== loss.setting))
    )
    .map(({ door, loss }) =>
      ofDetection(
        'warning',
        'sent',
        camera,
        d,
        `${d.name}: ${door.channel.deviceName} does not know its ${loss.setting} (${loss.wanted}); on site it is ${loss.nearest ?? 'left out'}.`,
        null,
        door.channel.device
      )
    )
})
