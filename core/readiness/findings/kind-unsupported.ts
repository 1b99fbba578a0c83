import { said } from '../../messages/said.ts'
import { routesOf, isRule } from '../deviceRoutes.ts'
import { inUse, ofDetection, type Check } from '../facts.ts'

export const kindUnsupported: Check = {
  code: 'kind-unsupported',
  find: ({ cameras, schedules }) =>
    cameras.flatMap((camera) => {
      const read = camera.channels.filter((c) => c.readAt !== null)
      if (!read.length) return []
      return inUse(camera)
        .filter((d) => isRule(d) && !routesOf(camera, d, schedules).length)
        .map((d) => {
          const [other] = routesOf(camera, d, schedules, false)
          return ofDetection(
            'blocking',
            'sent',
            camera,
            d,
            said(
              'readiness.kindUnsupported',
              d.name,
              read
                .map(({ deviceName }) => deviceName)
                .filter((name, i, all) => all.indexOf(name) === i)
            ),
            other
              ? {
                  does: 'door',
                  words: said('readiness.sendThrough', other.channel.deviceName),
                  device: other.channel.device,
                  channel: other.channel.token
                }
              : null
          )
        })
    })
}
