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
            `${d.name} is of a kind that ${read
              .map(({ deviceName }) => deviceName)
              .filter((name, i, all) => all.indexOf(name) === i)
              .join(' and ')} cannot do: it will never trigger there.`,
            other
              ? {
                  does: 'door',
                  words: `Send it through ${other.channel.deviceName}`,
                  device: other.channel.device,
                  channel: other.channel.token
                }
              : null
          )
        })
    })
}
