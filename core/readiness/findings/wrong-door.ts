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
      `${d.name}: its ${loss.setting} cannot be reached through ${door.channel.deviceName}, but through ${better.channel.deviceName}, which the plan is not sent through.`,
      {
        does: 'door',
        words: `Send through ${better.channel.deviceName} too`,
        device: better.channel.device,
        channel: better.channel.token
      },
      door.channel.device
    )
  })
})
