import { said } from '../../messages/said.ts'
import { routesOf, realLosses } from '../deviceRoutes.ts'
import { ofDetection, perDetection } from '../facts.ts'

export const wrongDoor = perDetection('wrong-door', (d, camera, { schedules }) => {
  const closed = routesOf(camera, d, schedules, false)
  return realLosses(routesOf(camera, d, schedules)).flatMap(({ door, loss }) => {
    const better = closed.find((other) =>
      other.losses.every(({ setting }) => setting !== loss.setting)
    )
    if (!better) return []
    return ofDetection(
      'warning',
      'sent',
      camera,
      d,
      said(
        'readiness.wrongRoute',
        d.name,
        said(`settings.${loss.setting}`),
        door.channel.deviceName,
        better.channel.deviceName
      ),
      {
        does: 'door',
        words: said('readiness.sendThroughToo', better.channel.deviceName),
        device: better.channel.device,
        channel: better.channel.token
      },
      door.channel.device
    )
  })
})
