import { said, type Said } from '../../messages/said.ts'
import { routesOf, realLosses } from '../deviceRoutes.ts'
import { ofDetection, perDetection } from '../facts.ts'

/** A value on a scale: another finding says that it is the nearest one. */
const isMeasured = ({ code }: Said): boolean =>
  ['values.number', 'values.seconds', 'values.cells', 'values.step'].includes(code)

/** A setting that no device of the camera knows at all: on site it is as if it had not been set. */
export const notHeld = perDetection('not-held', (d, camera, { schedules }) => {
  const doors = routesOf(camera, d, schedules)
  const closed = routesOf(camera, d, schedules, false)
  return realLosses(doors)
    .filter(
      ({ loss }) =>
        (loss.nearest === null || !isMeasured(loss.nearest)) &&
        !closed.some((other) => other.losses.every(({ setting }) => setting !== loss.setting))
    )
    .map(({ door, loss }) =>
      ofDetection(
        'warning',
        'sent',
        camera,
        d,
        said(
          'readiness.notHeld',
          d.name,
          door.channel.deviceName,
          said(`settings.${loss.setting}`),
          loss.wanted,
          loss.nearest ?? said('readiness.leftOut')
        ),
        null,
        door.channel.device
      )
    )
})
